// What is drawn over the picture: the item under the pointer, what can be taken hold of, what moves with it, measures, and handles of knobs.

import { drawn, part } from "./parts.js";

export class Overlay {
    /** @param {import("./picture.js").Picture} picture */
    constructor(picture) {
        this.picture = picture;
        this.svg = part("overlay", SVGSVGElement);
        /** @type {any} */
        this.item = null;
        /** The outlines of what the cursor's line makes. @type {string[]} */
        this.lined = [];
        /** @type {any} */
        this.grip = null;
        /** @type {[number, number] | null} */
        this.chosen = null;
        /** @type {[number, number] | null} */
        this.from = null;
        /** @type {[number, number] | null} */
        this.found = null;
        /** The handles of point knobs, and whether they stand on what they move. @type {{name: string, at: [number, number], moves: boolean}[]} */
        this.handles = [];
        /** What others draw over the picture. @type {(() => SVGElement[])[]} */
        this.more = [];
        picture.moved.push(() => this.draw());
    }

    /** From the sheet's coordinates to the stage. */
    get transform() {
        const { picture } = this;
        const [[x0, y0], [x1, y1]] = picture.corners;
        const [left, top] = picture.onStage([0, 0]);
        const across = ((picture.size[0] ?? 1) * picture.zoom) / (x1 - x0);
        const down = ((picture.size[1] ?? 1) * picture.zoom) / (y1 - y0);
        return `matrix(${across} 0 0 ${down} ${left} ${top})`;
    }

    draw() {
        const { picture } = this;
        /** @type {SVGElement[]} */
        const parts = [];
        const outlines = this.lined.map((d) => [d, "lined"]);
        if (this.item !== null && this.item.outline !== "") outlines.push([this.item.outline, "outline"]);
        if (outlines.length > 0) {
            const { transform } = this;
            for (const [d, kind] of outlines) parts.push(drawn("path", { class: kind ?? "", d: d ?? "", transform }));
        }
        for (const [dot, kind] of /** @type {[any, string][]} */ ([[this.from, "from"], [this.found, "found"]])) {
            if (dot === null) continue;
            const [x, y] = picture.onStage(dot);
            parts.push(drawn("path", { class: kind, d: `M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}` }));
        }
        if (this.grip !== null) {
            for (const other of this.grip.moved) {
                const [x, y] = picture.onStage(other);
                parts.push(drawn("circle", { class: "moved", cx: x, cy: y, r: 3 }));
            }
            const [x, y] = picture.onStage(this.grip.at);
            parts.push(drawn("circle", { class: this.grip.numbers.length > 0 ? "grip" : "grip stuck", cx: x, cy: y, r: 7 }));
        }
        if (this.chosen !== null) {
            const [x, y] = picture.onStage(this.chosen);
            parts.push(drawn("rect", { class: "chosen", x: x - 6, y: y - 6, width: 12, height: 12 }));
        }
        for (const handle of this.handles) {
            const [x, y] = picture.onStage(handle.at);
            const diamond = drawn("path", {
                class: "handle", d: `M${x} ${y - 8}L${x + 8} ${y}L${x} ${y + 8}L${x - 8} ${y}Z`, "data-knob": handle.name,
            });
            const name = drawn("text", { class: "handle-name", x: x + 11, y: y + 4 });
            name.textContent = handle.name;
            parts.push(diamond, name);
        }
        this.svg.replaceChildren(...parts, ...this.more.flatMap((more) => more()));
    }
}
