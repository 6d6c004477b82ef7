// The pointer over a picture that is traced: placing vertices, dragging them, bending sides, panning.

import { Fingers } from "./fingers.js";
import { isOnControl, part, reachOf, short } from "./parts.js";
import { Press } from "./press.js";

export class DraftPointer {
    /** @param {import("./draft.js").Draft} draft */
    constructor(draft) {
        this.draft = draft;
        this.picture = draft.picture;
        /** The press that goes on, what it does, and to which vertex or side of which shape. @type {{press: Press, what: "pan" | "move" | "pull" | "add", shape: number, place: number} | null} */
        this.doing = null;
        const { stage } = this.picture;
        // What the first of two fingers began is called off.
        new Fingers(this.picture, () => this.callOff());
        stage.addEventListener("pointerdown", (event) => this.down(event));
        stage.addEventListener("pointermove", (event) => this.move(event));
        stage.addEventListener("pointerup", (event) => this.up(event));
        stage.addEventListener("pointercancel", () => this.callOff());
        stage.addEventListener("pointerleave", () => {
            if (this.doing !== null) return;
            draft.last = undefined;
            draft.near = null;
            draft.draw();
        });
    }

    callOff() {
        this.doing = null;
        this.draft.settle();
        this.draft.show();
    }

    /**
     * The vertex at a place of the window: a finger has not been there before it presses.
     * @param {PointerEvent} event
     * @returns {[number, number] | null}
     */
    vertexAt(event) {
        const box = this.picture.stage.getBoundingClientRect();
        /** @type {[number, number] | null} */
        let best = null;
        let nearest = reachOf(event);
        for (const shape of this.draft.now.shapes) {
            for (const [number, vertex] of shape.vertices.entries()) {
                const [x, y] = this.picture.onStage(vertex.at);
                const apart = Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y);
                if (apart <= nearest) [best, nearest] = [[shape.id, number], apart];
            }
        }
        return best;
    }

    /** @param {PointerEvent} event */
    down(event) {
        if (isOnControl(event)) return;
        const { draft, picture } = this;
        picture.stage.focus({ preventScroll: true });
        draft.crossShown = false;
        // What was found by hovering may be of another place: a finger was not here before, and an answer may be late.
        const vertex = this.vertexAt(event);
        if (String(vertex) !== String(draft.near?.vertex ?? null)) {
            draft.near = vertex === null ? null : { vertex, side: null, shape: null, put: picture.placeOf(event) };
        }
        draft.last = event;
        picture.stage.setPointerCapture(event.pointerId);
        const { near } = draft;
        const [shape, place] = near?.vertex ?? near?.side ?? [0, 0];
        const what = event.button !== 0 ? "pan" : near?.vertex ? "move" : near?.side ? "pull" : "add";
        this.doing = { press: new Press(event), what, shape, place };
        draft.busy = true;
    }

    /**
     * The step that the pointer makes.
     * @param {[number, number]} at
     */
    stepTo(at) {
        const { doing } = this;
        if (doing?.what === "move") return { move: { shape: doing.shape, vertex: doing.place, to: at } };
        if (doing?.what === "pull") return { insert: { shape: doing.shape, side: doing.place, at, kind: "soft" } };
        return null;
    }

    /** @param {PointerEvent} event */
    move(event) {
        const { draft, doing } = this;
        draft.last = event;
        const at = this.picture.placeOf(event);
        part("position", HTMLOutputElement).value = `${short(at[0], 1)}, ${short(at[1], 1)}`;
        if (doing === null) {
            draft.look();
            draft.draw();
            return;
        }
        const by = doing.press.follow(event);
        if (!doing.press.moved) return;
        const what = this.stepTo(at);
        if (what === null) this.picture.panBy(...by);
        else draft.attempt(what);
    }

    /** @param {PointerEvent} event */
    up(event) {
        const { draft, doing } = this;
        if (doing === null) return;
        const at = this.picture.placeOf(event);
        const what = this.stepTo(at);
        doing.press.follow(event);
        this.doing = null;
        draft.settle();
        if (!doing.press.moved) this.click(event, doing, at);
        else if (what !== null) draft.step(what);
        draft.show();
    }

    /**
     * @param {PointerEvent} event
     * @param {{what: "pan" | "move" | "pull" | "add", shape: number, place: number}} doing
     * @param {[number, number]} at
     */
    click(event, { what, shape, place }, at) {
        const { draft } = this;
        const own = draft.active;
        if (what === "move") {
            const closes = own !== undefined && own.id === shape && place === 0 && own.vertices.length > 2 && !own.closed;
            if (closes) {
                draft.finish(true);
                return;
            }
            if (own === undefined) draft.step({ pick: { shape } });
            draft.choose([shape, place]);
        } else if (what === "pull" && event.shiftKey) {
            draft.step({ insert: { shape, side: place, at, kind: draft.kind } });
        } else if (what === "pull" && own !== undefined && own.id !== shape) {
            draft.step({ add: { at, kind: draft.kind } });
        } else if (what === "pull") {
            draft.step({ pick: { shape } });
        } else if (what === "add") {
            if (event.altKey && draft.near?.shape) draft.step({ pick: { shape: draft.near.shape } });
            else draft.add(at);
        }
    }
}
