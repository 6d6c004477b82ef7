// Knobs as sliders, switches, lists, colours and handles on the picture, made from what the score declares.

import { button, element, html } from "./parts.js";

/** @typedef {{name: string, start: string, value: string, shape: {kind: string} & Record<string, any>, at: [number, number] | null}} Knob */

export class Knobs {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./overlay.js").Overlay} overlay
     */
    constructor(wire, overlay) {
        this.wire = wire;
        this.overlay = overlay;
        /** @type {Knob[]} */
        this.knobs = [];
        this.shape = "";
        /** The knob that is moved here just now: what is told of it is older. */
        this.moving = "";
        /** @type {Map<string, (value: string) => void>} */
        this.setters = new Map();
        wire.on("knobs", (told) => this.told(told.knobs));
        button("keep-knobs").addEventListener("click", () => wire.send({ ask: "keep-knobs" }));
    }

    /** @param {Knob[]} knobs */
    told(knobs) {
        this.knobs = knobs;
        html("knobs").hidden = knobs.length === 0;
        const shape = JSON.stringify(knobs.map(({ name, start, shape: { hex, ...rest } }) => [name, start, rest]));
        if (shape !== this.shape) {
            this.shape = shape;
            this.setters.clear();
            html("knob-list").replaceChildren(...knobs.map((knob) => this.row(knob)));
        }
        for (const knob of knobs) if (knob.name !== this.moving) this.setters.get(knob.name)?.(knob.shape.hex ?? knob.value);
        button("keep-knobs").hidden = knobs.every((knob) => knob.value === knob.start);
        this.overlay.handles = knobs.filter((knob) => knob.shape.kind === "point").map((knob) => {
            const [x = 0, y = 0] = knob.value.split(",").map(Number);
            return { name: knob.name, at: knob.at ?? /** @type {[number, number]} */ ([x, y]), moves: knob.at !== null };
        });
        this.overlay.draw();
    }

    /**
     * @param {string} name
     * @param {string} value
     * @param {boolean} more
     */
    set(name, value, more) {
        this.moving = more ? name : "";
        this.wire.send({ ask: "knob", name, value, more });
    }

    /** @param {Knob} knob */
    row(knob) {
        const { name, shape } = knob;
        const id = `knob-${name.replace(/\W/g, "-")}`;
        /** @type {HTMLElement} */
        let control;
        const told = element("output", { for: id });
        if (shape.kind === "number") {
            const span = shape.high - shape.low;
            const step = span > 0 ? 10 ** Math.floor(Math.log10(span / 200)) : 1;
            const whole = [knob.start, shape.low, shape.high].every((value) => Number.isInteger(Number(value))) && span >= 3;
            const slider = element("input", { type: "range", id, min: shape.low, max: shape.high, step: whole ? 1 : step });
            slider.addEventListener("input", () => {
                told.value = slider.value;
                this.set(name, slider.value, true);
            });
            slider.addEventListener("change", () => this.set(name, slider.value, false));
            this.setters.set(name, (value) => { slider.value = value; told.value = value; });
            control = slider;
        } else if (shape.kind === "choice") {
            const list = element("select", { id }, ...shape.choices.map((/** @type {string} */ one) => element("option", { value: one, text: one })));
            list.addEventListener("change", () => this.set(name, list.value, false));
            this.setters.set(name, (value) => { list.value = value; });
            control = list;
        } else if (shape.kind === "switch") {
            const box = element("input", { type: "checkbox", id });
            box.addEventListener("change", () => this.set(name, box.checked ? "on" : "off", false));
            this.setters.set(name, (value) => { box.checked = value === "on"; });
            control = box;
        } else if (shape.kind === "colour") {
            const picker = element("input", { type: "color", id });
            picker.addEventListener("input", () => this.set(name, picker.value, true));
            picker.addEventListener("change", () => this.set(name, picker.value, false));
            this.setters.set(name, (value) => { picker.value = value.slice(0, 7); told.value = value; });
            control = picker;
        } else {
            const field = element("input", { type: "text", id, size: 12 });
            field.addEventListener("change", () => this.set(name, field.value, false));
            this.setters.set(name, (value) => { field.value = value; });
            control = field;
        }
        control.title = `Double click for the start value, ${knob.start}`;
        const row = element("div", { class: "knob", "data-knob": name }, element("label", { for: id, text: name }), control, told);
        row.addEventListener("dblclick", () => {
            this.moving = "";
            this.wire.send({ ask: "knob-back", name });
        });
        return row;
    }
}
