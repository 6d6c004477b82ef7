// How wide the text and the panels are, whether the text is shown, and whether its long lines are broken: kept in the browser.

import { button, html } from "./parts.js";
import { store, stored } from "./stored.js";

/** So many pixels wide the picture is at least, and each of the others. */
const LEAST = 200;
/** So far in pixels a key moves an edge. */
const STEP = 16;

export class Columns {
    /** @param {{wrap: (on: boolean) => void}} text */
    constructor(text) {
        this.main = /** @type {HTMLElement} */ (document.querySelector("main"));
        this.edge("text", 1);
        this.edge("panels", -1);
        this.toggle("show-text", true, (on) => document.body.classList.toggle("without-text", !on));
        this.toggle("wrap", false, (on) => text.wrap(on));
    }

    /**
     * @param {string} id
     * @param {boolean} first
     * @param {(on: boolean) => void} act
     */
    toggle(id, first, act) {
        const show = (/** @type {boolean} */ on) => {
            button(id).setAttribute("aria-pressed", String(on));
            act(on);
        };
        const before = stored(id);
        show(before === null ? first : before === "true");
        button(id).addEventListener("click", () => {
            const on = button(id).getAttribute("aria-pressed") !== "true";
            store(id, String(on));
            show(on);
        });
    }

    /**
     * The edge between the picture and what stands beside it, which is moved by the pointer and by keys.
     * @param {"text" | "panels"} name
     * @param {1 | -1} way In which direction it becomes wider.
     */
    edge(name, way) {
        const edge = html(`${name}-edge`);
        const own = () => html(name === "text" ? "text-pane" : "panels").getBoundingClientRect().width;
        const set = (/** @type {number} */ width) => {
            const room = this.main.clientWidth - LEAST - html(name === "text" ? "panels" : "text-pane").getBoundingClientRect().width;
            const fit = Math.round(Math.max(LEAST, Math.min(width, room)));
            this.main.style.setProperty(`--${name}`, `${fit}px`);
            edge.setAttribute("aria-valuenow", String(fit));
            return fit;
        };
        const widen = (/** @type {number} */ width) => store(name, String(set(width)));
        const before = Number(stored(name));
        if (before > 0) set(before);
        let [from, width] = [0, 0];
        edge.addEventListener("pointerdown", (event) => {
            [from, width] = [event.clientX, own()];
            edge.setPointerCapture(event.pointerId);
        });
        edge.addEventListener("pointermove", (event) => {
            if (edge.hasPointerCapture(event.pointerId)) widen(width + way * (event.clientX - from));
        });
        edge.addEventListener("dblclick", () => {
            store(name, null);
            this.main.style.removeProperty(`--${name}`);
        });
        edge.addEventListener("keydown", (event) => {
            const by = event.key === "ArrowLeft" ? -STEP : event.key === "ArrowRight" ? STEP : 0;
            if (by === 0) return;
            event.preventDefault();
            widen(own() + way * by);
        });
    }
}
