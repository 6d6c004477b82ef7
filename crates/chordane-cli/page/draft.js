// The draft that is traced: what the program says of it, and what it is asked for.

import { Asker } from "./asker.js";
import { announce, input, reachOf, short } from "./parts.js";

/** @typedef {"corner" | "soft" | {rounded: number}} Kind */
/** @typedef {{at: [number, number], kind: Kind}} Vertex */
/** @typedef {{id: number, closed: boolean, hole_of: number | null, outline: string, vertices: Vertex[]}} Shape */
/** @typedef {{shapes: Shape[], active: number | null, hole_of: number | null, undo: number, redo: number}} Shapes */
/** What lies under the pointer: a vertex, a side or a shape, and where a vertex would be put. @typedef {{vertex: [number, number] | null, side: [number, number] | null, shape: number | null, put: [number, number]}} Near */

export class Draft {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./picture.js").Picture} picture
     */
    constructor(wire, picture) {
        this.wire = wire;
        this.picture = picture;
        /** @type {Shapes} */
        this.now = { shapes: [], active: null, hole_of: null, undo: 0, redo: 0 };
        /** What the step that is being made would give. @type {Shapes | null} */
        this.tried = null;
        /** The chosen vertex: its shape and its number. @type {[number, number] | null} */
        this.chosen = null;
        /** @type {Near | null} */
        this.near = null;
        /** Where the pointer was last. @type {PointerEvent | undefined} */
        this.last = undefined;
        /** Whether the pointer makes a step. */
        this.busy = false;
        /** Where a vertex would be put by keys. @type {[number, number]} */
        this.cross = [0, 0];
        this.crossShown = false;
        this.kindName = "corner";
        this.looks = new Asker(wire);
        this.tries = new Asker(wire);
        /** Called where the draft, or what is chosen of it, has changed. @type {(() => void)[]} */
        this.changed = [];
        /** Called where it is drawn anew, also since the pointer has moved. @type {(() => void)[]} */
        this.drawn = [];
        wire.on("draft", (told) => this.is(told));
        wire.on("tried", (told) => {
            if (this.busy) this.tried = told;
            this.draw();
            this.tries.answered();
        });
        wire.on("near", (told) => {
            this.near = told;
            this.draw();
            this.looks.answered();
        });
    }

    /** @param {Shapes} told */
    is(told) {
        const before = this.now;
        this.now = told;
        this.tried = null;
        if (this.chosen !== null && this.vertexOf(this.chosen) === undefined) this.chosen = null;
        this.say(before);
        this.show();
        this.look();
    }

    show() {
        for (const one of this.changed) one();
        this.draw();
    }

    draw() {
        for (const one of this.drawn) one();
    }

    /** @returns {Kind} */
    get kind() {
        return this.kindName === "rounded" ? { rounded: Number(input("radius").value) } : /** @type {Kind} */ (this.kindName);
    }

    /** How near the pointer is to what it takes hold of, in units of the picture. */
    get reach() {
        return reachOf(this.last) * this.picture.pixel;
    }

    get snap() {
        const step = Number(input("grid").value);
        return {
            within: input("snap-vertices").checked || input("snap-edges").checked ? this.reach : 0,
            grid: input("snap-grid").checked && step > 0 ? step : null, edges: input("snap-edges").checked,
        };
    }

    /** @param {Record<string, unknown>} what */
    step(what) {
        this.wire.send({ ask: "step", step: what, snap: this.snap });
    }

    /** Shows what a step would make. @param {Record<string, unknown>} what */
    attempt(what) {
        this.tries.ask(() => (this.busy ? { ask: "try", step: what, snap: this.snap } : null));
    }

    /** The step that the pointer makes is over, or called off. */
    settle() {
        this.busy = false;
        this.tried = null;
    }

    /** Asks what lies under the pointer. */
    look() {
        this.looks.ask(() => {
            if (this.last === undefined || this.busy) return null;
            return { ask: "look", at: this.picture.placeOf(this.last), reach: this.reach, snap: this.snap };
        });
    }

    /** @param {[number, number]} of */
    vertexOf([shape, vertex]) {
        return this.shape(shape)?.vertices[vertex];
    }

    /** @param {number | null} id */
    shape(id) {
        return this.now.shapes.find((one) => one.id === id);
    }

    get active() {
        return this.shape(this.now.active);
    }

    /** The shape that buttons are about: that of the chosen vertex, else the one that is being drawn. */
    get shapeInHand() {
        return this.chosen?.[0] ?? this.now.active;
    }

    /** @param {[number, number] | null} vertex */
    choose(vertex) {
        this.chosen = vertex;
        this.show();
    }

    /** @param {[number, number]} at */
    add(at) {
        this.chosen = null;
        this.step({ add: { at, kind: this.kind } });
    }

    /** @param {boolean} closed */
    finish(closed) {
        if (this.now.active !== null) this.step({ finish: { closed } });
    }

    remove() {
        if (this.chosen !== null) this.step({ remove: { shape: this.chosen[0], vertex: this.chosen[1] } });
    }

    deleteShape() {
        const shape = this.shapeInHand;
        this.chosen = null;
        if (shape !== null) this.step({ delete: { shape } });
    }

    /** Begins a hole in the shape in hand; without one, the shape that was just closed becomes a hole. Whether there is a shape. */
    hole() {
        const shape = this.shapeInHand;
        const last = this.now.shapes.at(-1);
        if (shape !== null) this.step({ hole: { shape: this.shape(shape)?.hole_of ?? shape } });
        else if (last !== undefined) this.step({ "make-hole": { shape: last.id } });
        else return false;
        return true;
    }

    /** @param {string} name */
    setKind(name) {
        this.kindName = name;
        if (this.chosen !== null) this.step({ change: { shape: this.chosen[0], vertex: this.chosen[1], kind: this.kind } });
        this.show();
    }

    /** Picks the next shape or the one before. @param {1 | -1} by */
    cycle(by) {
        const { shapes, active } = this.now;
        const at = shapes.findIndex((one) => one.id === active);
        const next = shapes[(at + by + shapes.length) % shapes.length];
        if (next !== undefined) this.step({ pick: { shape: next.id } });
    }

    /** Chooses the next vertex of the shape in hand. */
    nextVertex() {
        const own = this.active ?? this.now.shapes.at(-1);
        if (own !== undefined) this.chosen = [own.id, this.chosen?.[0] === own.id ? (this.chosen[1] + 1) % own.vertices.length : 0];
        this.say(this.now);
        this.show();
    }

    /** Says what is chosen, or what was drawn, to those who listen. @param {Shapes} before */
    say(before) {
        const { chosen, now } = this;
        const own = chosen === null ? undefined : this.vertexOf(chosen);
        const count = (/** @type {Shapes} */ of) => of.shapes.map((shape) => `${shape.vertices.length}${shape.closed}`).join();
        if (own !== undefined && chosen !== null) {
            announce(`shape ${chosen[0]}, vertex ${chosen[1]}, at ${short(own.at[0], 1)}, ${short(own.at[1], 1)}. Arrow keys move it, Delete takes it out.`);
        } else if (count(before) !== count(now)) {
            const shape = this.active ?? now.shapes.at(-1);
            if (shape !== undefined) announce(`shape ${shape.id}: ${shape.vertices.length} vertices, ${shape.closed ? "closed" : "open"}.`);
        }
    }
}
