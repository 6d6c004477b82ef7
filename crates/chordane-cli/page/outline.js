// A new shape, made by clicking its vertices on the picture and written into the score.

import { announce, button, drawn, element, html, input, isOnControl, question, reachOf, short, toast } from "./parts.js";
import { Press } from "./press.js";
import { store, stored } from "./stored.js";

/** @typedef {"corner" | "soft" | {rounded: number}} Kind */

export class NewOutline {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./drag.js").Drag} drag
     * @param {import("./overlay.js").Overlay} overlay
     * @param {{toLine: (line: number) => void}} text
     */
    constructor(wire, drag, overlay, text) {
        this.wire = wire;
        this.drag = drag;
        this.overlay = overlay;
        this.picture = overlay.picture;
        this.active = false;
        /** @type {{at: [number, number], kind: Kind}[]} */
        this.vertices = [];
        this.kind = "corner";
        /** The outline as the program draws it, and how many questions for one are not answered. */
        this.outline = "";
        this.asked = 0;
        /** The file of the score: an unfinished shape is stored under its name. */
        this.file = "";
        /** Where the next vertex would be. @type {[number, number] | null} */
        this.cross = null;
        /** @type {Press | null} */
        this.press = null;
        wire.on("outline", (told) => {
            this.asked -= 1;
            this.outline = told.outline;
            overlay.draw();
        });
        wire.on("added", (told) => {
            text.toLine(told.line);
            toast(`Added in line ${told.line}.`);
            announce(`Added in line ${told.line}.`);
            if (!told.marks) this.end();
        });
        wire.on("hello", (told) => {
            this.asked = 0;
            this.file = told.path;
            this.offer();
        });
        overlay.more.push(() => this.drawn());
        this.bar();
        const { stage } = this.picture;
        stage.addEventListener("pointerdown", (event) => this.down(event), true);
        stage.addEventListener("pointermove", (event) => this.move(event), true);
        stage.addEventListener("pointerup", (event) => this.up(event), true);
        stage.addEventListener("pointercancel", () => { this.press = null; }, true);
    }

    bar() {
        const act = (/** @type {string} */ id, /** @type {string} */ label, /** @type {() => void} */ does) => {
            const made = element("button", { id: `outline-${id}`, text: label });
            made.addEventListener("click", does);
            return made;
        };
        const kinds = [["corner", "Corner"], ["soft", "Smooth"], ["rounded", "Rounded"]].map(([kind = "", label = ""]) => {
            const made = act(kind, label, () => this.of(kind));
            made.dataset.corner = kind;
            return made;
        });
        html("outline-bar").append(
            element("span", { id: "outline-told" }),
            element("span", { role: "group", "aria-label": "The next vertex" }, ...kinds),
            element("label", { id: "outline-size" }, "radius ", element("input", { id: "outline-radius", type: "number", min: 0, step: 1, value: 10, size: 4 })),
            act("close", "Close", () => this.finish(true)), act("open", "End open", () => this.finish(false)),
            act("back", "Take back", () => this.takeBack()), act("cancel", "Cancel", () => this.cancel()));
        for (const [id, key] of [["close", "Enter"], ["open", "Shift and Enter"], ["back", "Backspace"], ["cancel", "Escape"]]) {
            button(`outline-${id}`).title = key ?? "";
        }
        button("new-shape").addEventListener("click", () => (this.active ? this.cancel() : this.begin()));
        this.show();
    }

    begin() {
        if (document.body.classList.contains("broken")) {
            toast("Mend the mistake first: a shape can be added to a score that runs.");
            return;
        }
        this.active = true;
        this.cross = null;
        this.drag.forget();
        [this.overlay.item, this.overlay.grip] = [null, null];
        this.picture.stage.focus({ preventScroll: true });
        announce("New shape. Click to place vertices, or move the cross with the arrow keys and press a. Enter closes it.");
        this.show();
    }

    /** Offers a shape that was not finished when the page was left. */
    offer() {
        const text = stored(`shape-${this.file}`);
        if (text === null || this.active) return;
        const { vertices } = JSON.parse(text);
        const count = vertices.length === 1 ? "1 vertex" : `${vertices.length} vertices`;
        question("shape-offer", `A shape of ${count} was not finished when this page was left.`, [
            ["Go on with it", () => {
                this.begin();
                this.vertices = vertices;
                this.changed();
            }],
            ["Drop it", () => store(`shape-${this.file}`, null)],
        ]);
    }

    end() {
        this.active = false;
        this.vertices = [];
        store(`shape-${this.file}`, null);
        this.outline = "";
        this.cross = null;
        this.show();
    }

    cancel() {
        const { vertices } = this;
        this.end();
        if (vertices.length === 0) return;
        toast("The new shape is dropped.", { label: "Bring it back", act: () => {
            this.begin();
            this.vertices = vertices;
            this.changed();
        } });
    }

    /** @param {string} kind */
    of(kind) {
        this.kind = kind;
        this.picture.stage.focus({ preventScroll: true });
        this.show();
    }

    /** @returns {Kind} */
    get nextKind() {
        return this.kind === "rounded" ? { rounded: Math.max(0, Number(input("outline-radius").value) || 0) } : /** @type {Kind} */ (this.kind);
    }

    /** The sides of a sheet that is this small are divided into tenths and so on. */
    get step() {
        const [[x0, y0], [x1, y1]] = this.picture.corners;
        const side = Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0));
        return side >= 20 ? 1 : 10 ** Math.floor(Math.log10(side / 200));
    }

    /**
     * Where a vertex is put for a place of the window: on whole numbers, with Shift on the grid.
     * @param {{clientX: number, clientY: number, shiftKey: boolean}} event
     * @returns {[number, number]}
     */
    put(event) {
        const step = event.shiftKey ? Math.max(this.drag.grid, this.step) : this.step;
        const [x, y] = this.picture.placeOf(event);
        return [Math.round(x / step) * step, Math.round(y / step) * step];
    }

    /** @param {PointerEvent} event */
    down(event) {
        if (!this.active || isOnControl(event)) return;
        event.stopImmediatePropagation();
        this.picture.stage.focus({ preventScroll: true });
        this.picture.stage.setPointerCapture(event.pointerId);
        this.press = new Press(event);
    }

    /** @param {PointerEvent} event */
    move(event) {
        if (!this.active) return;
        event.stopImmediatePropagation();
        const at = this.put(event);
        this.drag.readout.position(at, null);
        this.drag.last = event;
        const by = this.press?.follow(event);
        if (by !== undefined && this.press?.isStill(event) === false) {
            this.picture.panBy(...by);
        } else {
            this.cross = at;
            this.overlay.draw();
        }
    }

    /** @param {PointerEvent} event */
    up(event) {
        if (!this.active || this.press === null) return;
        event.stopImmediatePropagation();
        const still = this.press.isStill(event) && event.button === 0;
        this.press = null;
        if (!still) return;
        const first = this.vertices[0];
        if (first !== undefined && this.vertices.length > 2) {
            const [x, y] = this.picture.onStage(first.at);
            const box = this.picture.stage.getBoundingClientRect();
            if (Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) <= reachOf(event)) {
                this.finish(true);
                return;
            }
        }
        this.add(this.put(event));
    }

    /** @param {[number, number]} at */
    add(at) {
        // A second click at one place, as of a double click, adds nothing.
        if (String(this.vertices.at(-1)?.at) === String(at)) return;
        this.vertices.push({ at, kind: this.nextKind });
        announce(`Vertex ${this.vertices.length} at ${short(at[0])}, ${short(at[1])}.`);
        this.changed();
    }

    takeBack() {
        this.vertices.pop();
        this.changed();
    }

    changed() {
        if (this.vertices.length > 1 && this.wire.send({ ask: "outline", vertices: this.vertices, closed: false })) this.asked += 1;
        else this.outline = "";
        store(`shape-${this.file}`, this.vertices.length === 0 ? null : JSON.stringify({ vertices: this.vertices }));
        this.show();
    }

    /** @param {boolean} closed */
    finish(closed) {
        const least = closed ? 3 : 2;
        if (this.vertices.length < least) {
            const told = closed ? "A closed shape needs at least 3 vertices; 2 make an open line (Shift and Enter)." : "A line needs at least 2 vertices.";
            toast(told);
            announce(told);
            return;
        }
        const sent = this.wire.send({ ask: "new-shape", vertices: this.vertices, closed });
        if (!sent) toast("No connection to chordane: the shape stays here. Close it once it is back.");
    }

    /**
     * Whether a key means something while a shape is made, and was done.
     * @param {KeyboardEvent} event
     */
    key(event) {
        if (!this.active) return false;
        const size = (event.shiftKey ? 10 : 1) * this.step;
        const { picture } = this;
        const up = picture.corners[1][1] > picture.corners[0][1] ? -1 : 1;
        const move = (/** @type {number} */ x, /** @type {number} */ y) => {
            const [[x0, y0], [x1, y1]] = picture.corners;
            const step = this.step;
            const at = this.cross ?? [Math.round((x0 + x1) / 2 / step) * step, Math.round((y0 + y1) / 2 / step) * step];
            this.cross = [(at[0] ?? 0) + x, (at[1] ?? 0) + y];
            this.drag.readout.position(this.cross, null);
            announce(`${short(this.cross[0])}, ${short(this.cross[1])}`);
            this.overlay.draw();
        };
        /** @type {Record<string, () => void>} */
        const keys = {
            ArrowLeft: () => move(-size, 0), ArrowRight: () => move(size, 0), ArrowUp: () => move(0, size * up), ArrowDown: () => move(0, -size * up),
            a: () => (this.cross === null ? move(0, 0) : this.add(this.cross)),
            c: () => this.of("corner"), s: () => this.of("soft"), r: () => this.of("rounded"),
            Enter: () => this.finish(!event.shiftKey), Backspace: () => this.takeBack(), Delete: () => this.takeBack(),
            Escape: () => this.cancel(),
        };
        const act = keys[event.key];
        if (act === undefined) return false;
        act();
        return true;
    }

    show() {
        html("outline-bar").hidden = !this.active;
        document.body.classList.toggle("drawing", this.active);
        button("new-shape").setAttribute("aria-pressed", String(this.active));
        const count = this.vertices.length;
        const told = count === 0 ? "New shape: click its vertices." : `New shape: ${count} ${count === 1 ? "vertex" : "vertices"}.`;
        html("outline-told").textContent = told;
        for (const one of html("outline-bar").querySelectorAll("[data-corner]")) {
            one.setAttribute("aria-pressed", String(one.getAttribute("data-corner") === this.kind));
        }
        html("outline-size").hidden = this.kind !== "rounded";
        button("outline-close").disabled = count < 3;
        button("outline-open").disabled = count < 2;
        button("outline-back").disabled = count === 0;
        this.overlay.draw();
    }

    /** What is drawn over the picture. */
    drawn() {
        if (!this.active) return [];
        const { picture } = this;
        /** @type {SVGElement[]} */
        const parts = [];
        if (this.outline !== "") {
            for (const kind of ["traced-halo", "traced active"]) parts.push(drawn("path", { class: kind, d: this.outline, transform: this.overlay.transform }));
        }
        const last = this.vertices.at(-1);
        if (this.cross !== null) {
            const [x, y] = picture.onStage(this.cross);
            for (const end of [last, this.vertices.length > 1 ? this.vertices[0] : undefined]) {
                if (end === undefined) continue;
                const [a, b] = picture.onStage(end.at);
                parts.push(drawn("path", { class: "next", d: `M${a} ${b}L${x} ${y}` }));
            }
            parts.push(drawn("path", { class: "cross", d: `M${x - 9} ${y}H${x + 9}M${x} ${y - 9}V${y + 9}` }));
        }
        for (const vertex of this.vertices) {
            const [x, y] = picture.onStage(vertex.at);
            const name = `vertex of-active${vertex === last ? " is-chosen" : ""}`;
            if (vertex.kind === "soft") parts.push(drawn("circle", { class: name, cx: x, cy: y, r: 5 }));
            else parts.push(drawn("rect", { class: name, x: x - 4.5, y: y - 4.5, width: 9, height: 9, rx: vertex.kind === "corner" ? 0 : 3 }));
        }
        return parts;
    }
}
