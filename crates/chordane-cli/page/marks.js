// Marks: numbered points that move, shown with their numbers; and shapes made of them by clicking one after the other.

import { announce, button, drawn, element, html, toast } from "./parts.js";

/** So near in pixels a click is one of a mark. */
const REACH = 14;

/** @typedef {{numbers: number[], closed: boolean}} MarkedShape */

export class Marks {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./overlay.js").Overlay} overlay
     */
    constructor(wire, overlay) {
        this.wire = wire;
        this.overlay = overlay;
        /** @type {Map<number, [number, number]>} */
        this.marks = new Map();
        /** @type {MarkedShape[]} */
        this.shapes = [];
        /** The shape that is being made, by its place; past the last one where the next begins. */
        this.active = 0;
        this.paused = false;
        wire.on("marks", (told) => this.told(told));
        wire.on("added", (told) => {
            if (!told.marks) return;
            this.shapes = [];
            this.active = 0;
            this.show();
        });
        overlay.more.push(() => this.drawn());
        const act = (/** @type {string} */ label, /** @type {string} */ name, /** @type {() => void} */ does) => {
            const made = element("button", { text: label, id: `marks-${name}` });
            made.addEventListener("click", () => { does(); this.show(); });
            return made;
        };
        html("marks-body").append(
            element("p", { id: "marks-told" }),
            element("div", { class: "row" },
                act("Pause", "pause", () => this.pause()),
                act("Take back", "back", () => { this.current?.numbers.pop(); this.tidy(); }),
                act("Close", "close", () => this.finish(true)), act("End open", "open", () => this.finish(false)),
                act("Delete", "delete", () => this.delete()),
                act("Previous", "previous", () => this.go(-1)), act("Next", "next", () => this.go(1))),
            this.numberField(),
            element("ol", { id: "marked" }),
            act("Write into the score", "keep", () => this.keep()));
    }

    get current() {
        return this.shapes[this.active];
    }

    /** @param {any} told */
    told(told) {
        this.marks = new Map(told.marks);
        html("marks").hidden = false;
        const skipped = told.skipped === 0 ? "" : `, ${told.skipped} lines that were no frames`;
        const late = told.left_out === 0 ? "" : `, ${told.left_out} frames left out`;
        html("marks-told").textContent = `${this.marks.size} marks${skipped}${late}. Click them one after the other${told.paused ? "" : "; Pause holds them still"}.`;
        this.paused = told.paused;
        button("marks-pause").textContent = told.paused ? "Play" : "Pause";
        button("marks-pause").setAttribute("aria-pressed", String(told.paused));
        this.overlay.draw();
    }

    /**
     * The number of the mark at a place of the window, the nearest within reach.
     * @param {{clientX: number, clientY: number}} event
     * @returns {number | null}
     */
    at(event) {
        const { picture } = this.overlay;
        const box = picture.stage.getBoundingClientRect();
        let [best, nearest] = [/** @type {number | null} */ (null), REACH];
        for (const [number, place] of this.marks) {
            const [x, y] = picture.onStage(place);
            const apart = Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y);
            if (apart <= nearest) [best, nearest] = [number, apart];
        }
        return best;
    }

    /**
     * A mark was clicked: it is the next vertex of the active shape. The first one, clicked again, closes it.
     * @param {number} number
     */
    pick(number) {
        const own = this.current;
        if (own?.numbers.at(-1) === number) return;
        announce(`mark ${number}`);
        if (own === undefined) this.shapes.push({ numbers: [number], closed: false });
        else if (own.numbers.length > 2 && own.numbers[0] === number) this.finish(true);
        else own.numbers.push(number);
        this.show();
    }

    /** @param {boolean} closed */
    finish(closed) {
        const own = this.current;
        if (own === undefined) return;
        if (own.numbers.length < 2) {
            toast("A shape needs at least 2 marks; this one has 1. Click another, or delete it.");
            return;
        }
        own.closed = closed;
        this.active = this.shapes.length;
    }

    /** Deletes the active shape, which can be brought back. */
    delete() {
        const [at, [gone]] = [this.active, this.shapes.splice(this.active, 1)];
        this.active = Math.max(0, Math.min(this.active, this.shapes.length));
        if (gone === undefined) return;
        toast(`Deleted the shape through ${gone.numbers.join(" ")}.`, { label: "Bring it back", act: () => {
            this.shapes.splice(at, 0, gone);
            this.active = at;
            this.show();
        } });
    }

    /** Holds the marks still on the screen, or lets them go on. */
    pause() {
        this.wire.send({ ask: "pause-marks", on: !this.paused });
    }

    /** A mark by its number, for those who do not click. */
    numberField() {
        const field = element("input", { id: "marks-number", inputmode: "numeric", size: 4 });
        field.addEventListener("keydown", (event) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            const number = Number(field.value);
            if (this.marks.has(number)) this.pick(number);
            else toast(`There is no mark ${field.value}.`);
            field.value = "";
        });
        return element("label", { class: "row" }, "By its number ", field);
    }

    /** Empty shapes vanish. */
    tidy() {
        const own = this.current;
        this.shapes = this.shapes.filter((shape) => shape.numbers.length > 0);
        this.active = own === undefined || !this.shapes.includes(own) ? this.shapes.length : this.shapes.indexOf(own);
    }

    /** @param {1 | -1} by */
    go(by) {
        const count = this.shapes.length + 1;
        this.active = (this.active + by + count) % count;
    }

    keep() {
        const short = this.shapes.find((shape) => shape.numbers.length < 2);
        if (short !== undefined) {
            this.active = this.shapes.indexOf(short);
            toast(`The shape of mark ${short.numbers.join(" ")} alone cannot be written: click another mark, or delete it.`);
            return;
        }
        // They stay here until they are written.
        const sent = this.shapes.length > 0 && this.wire.send({ ask: "keep-shapes", shapes: this.shapes });
        if (!sent && this.shapes.length > 0) toast("No connection to chordane: the shapes stay here. Write them once it is back.");
    }

    show() {
        html("marked").replaceChildren(...this.shapes.map((shape, at) => {
            const pick = element("button", {
                "aria-pressed": String(at === this.active), text: `${shape.numbers.join(" ")}${shape.closed ? " closed" : ""}`,
            });
            pick.addEventListener("click", () => { this.active = at; this.show(); });
            return element("li", {}, pick);
        }));
        for (const name of ["back", "close", "open", "delete"]) button(`marks-${name}`).disabled = this.current === undefined;
        button("marks-keep").disabled = this.shapes.length === 0;
        this.overlay.draw();
    }

    /** What is drawn over the picture. */
    drawn() {
        /** @type {SVGElement[]} */
        const parts = [];
        const { picture } = this.overlay;
        for (const [at, shape] of this.shapes.entries()) {
            const places = shape.numbers.map((number) => this.marks.get(number)).filter((place) => place !== undefined);
            const d = places.map((place, i) => `${i === 0 ? "M" : "L"}${picture.onStage(place).join(" ")}`).join("");
            parts.push(drawn("path", { class: `marked${at === this.active ? " active" : ""}`, d: shape.closed ? `${d}Z` : d }));
        }
        for (const [number, place] of this.marks) {
            const [x, y] = picture.onStage(place);
            const isLast = this.current?.numbers.at(-1) === number;
            parts.push(drawn("circle", { class: `mark${isLast ? " last" : ""}`, cx: x, cy: y, r: 7, "data-mark": number }));
            const name = drawn("text", { class: "mark-number", x: x + 9, y: y - 6 });
            name.textContent = String(number);
            parts.push(name);
        }
        return parts;
    }
}
