// The draft as it is shown: over the picture, in the list of shapes, and in words.

import { button, drawn, element, html, part, short } from "./parts.js";

export class DraftView {
    /** @param {import("./draft.js").Draft} draft */
    constructor(draft) {
        this.draft = draft;
        this.picture = draft.picture;
        this.overlay = part("overlay", SVGSVGElement);
        draft.changed.push(() => this.list());
        draft.drawn.push(() => {
            this.tellUnder();
            this.draw();
        });
        this.picture.moved.push(() => this.draw());
    }

    draw() {
        const { draft, picture } = this;
        const shown = draft.tried ?? draft.now;
        /** @type {SVGElement[]} */
        const parts = [];
        const transform = `matrix(${picture.zoom} 0 0 ${picture.zoom} ${picture.left} ${picture.top})`;
        for (const shape of shown.shapes) {
            const state = shape.id === shown.active ? "active" : shape.hole_of === null ? "done" : "done hole";
            const name = `traced ${state}${shape.closed ? " closed" : ""}`;
            parts.push(drawn("path", { class: "traced-halo", d: shape.outline, transform }));
            parts.push(drawn("path", { class: name, d: shape.outline, transform, "data-shape": shape.id }));
        }
        for (const shape of shown.shapes) {
            for (const [number, vertex] of shape.vertices.entries()) {
                const isChosen = draft.chosen !== null && draft.chosen[0] === shape.id && draft.chosen[1] === number;
                parts.push(this.vertex(vertex, shape.id === shown.active, isChosen));
            }
        }
        this.overlay.replaceChildren(...parts, ...this.next());
    }

    /**
     * @param {import("./draft.js").Vertex} vertex
     * @param {boolean} isActive
     * @param {boolean} isChosen
     */
    vertex(vertex, isActive, isChosen) {
        const [x, y] = this.picture.onStage(vertex.at);
        const name = `vertex ${isActive ? "of-active" : ""} ${isChosen ? "is-chosen" : ""}`;
        const size = isActive ? 4.5 : 3.5;
        if (vertex.kind === "soft") return drawn("circle", { class: name, cx: x, cy: y, r: size + 0.5 });
        const rx = vertex.kind === "corner" ? 0 : size * 0.7;
        return drawn("rect", { class: name, x: x - size, y: y - size, width: 2 * size, height: 2 * size, rx });
    }

    /** Where the next vertex would be, and the side to it. */
    next() {
        const { draft, picture } = this;
        const points = !draft.busy && draft.near !== null && draft.near.vertex === null && draft.last !== undefined;
        const to = draft.crossShown ? draft.cross : points ? draft.near?.put ?? null : null;
        if (to === null) return [];
        const [x, y] = picture.onStage(to);
        const cross = drawn("path", { class: "cross", d: `M${x - 9} ${y}H${x + 9}M${x} ${y - 9}V${y + 9}` });
        const from = draft.active?.vertices.at(-1);
        if (from === undefined || draft.tried !== null || draft.active?.closed !== false) return [cross];
        const [a, b] = picture.onStage(from.at);
        return [drawn("path", { class: "next", d: `M${a} ${b}L${x} ${y}` }), cross];
    }

    tellUnder() {
        const { near, now, active } = this.draft;
        let told = "";
        if (near !== null && near.vertex !== null) {
            const vertex = this.draft.vertexOf(near.vertex);
            const names = { corner: "corner", soft: "soft vertex" };
            const name = vertex === undefined ? "" : typeof vertex.kind === "string" ? names[vertex.kind] : `rounded by ${short(vertex.kind.rounded)}`;
            const [id, place] = near.vertex;
            const closes = place === 0 && id === active?.id && active.closed === false;
            told = `shape ${id}, vertex ${place}: ${name}. Drag it${closes ? ", or click it to close the shape" : ""}`;
        } else if (near?.side) {
            told = `shape ${near.side[0]}, side ${near.side[1]}. Drag it into a curve, or Shift and click for a vertex in it`;
        } else if (now.hole_of !== null) {
            told = `Click to begin a hole in shape ${now.hole_of}`;
        } else {
            told = active === undefined ? "Click to begin a shape" : "Click for the next vertex; Enter closes the shape";
        }
        html("under").textContent = told;
        this.picture.stage.style.cursor = near?.vertex ? "move" : near?.side ? "grab" : "crosshair";
    }

    list() {
        const { draft } = this;
        const { now } = draft;
        html("shapes").replaceChildren(...now.shapes.map((shape) => {
            const hole = shape.hole_of === null ? "" : `, hole in ${shape.hole_of}`;
            const count = shape.vertices.length === 1 ? "1 vertex" : `${shape.vertices.length} vertices`;
            const pick = element("button", { "aria-pressed": String(shape.id === now.active), "data-shape": shape.id,
                text: `Shape ${shape.id}: ${count}, ${shape.closed ? "closed" : "open"}${hole}` });
            pick.addEventListener("click", () => draft.step({ pick: { shape: shape.id } }));
            return element("li", {}, pick);
        }));
        button("close-shape").disabled = now.active === null;
        button("end-open").disabled = now.active === null;
        button("hole").disabled = now.shapes.length === 0;
        button("delete").disabled = draft.shapeInHand === null;
        button("remove").disabled = draft.chosen === null;
        for (const one of document.querySelectorAll("button[data-kind]")) {
            one.setAttribute("aria-pressed", String(one.getAttribute("data-kind") === draft.kindName));
        }
    }
}
