// The picture: where it stands in the window, and what is shown of it.

import { element, html, part } from "./parts.js";

const LEAST = 0.02;
const MOST = 64;

export class Picture {
    constructor() {
        this.stage = html("stage");
        this.paper = html("paper");
        this.svg = "";
        this.size = [640, 480];
        /** @type {[[number, number], [number, number]]} */
        this.corners = [[0, 0], [640, 480]];
        this.zoom = 1;
        this.left = 0;
        this.top = 0;
        this.fitted = true;
        this.serial = 0;
        this.waiting = false;
        this.inside = this.paper.attachShadow({ mode: "open" });
        /** @type {(() => void)[]} */
        this.moved = [];
        this.surroundings = this.tools();
        new ResizeObserver(() => (this.fitted ? this.fit() : this.place())).observe(this.stage);
        this.stage.addEventListener("wheel", (event) => {
            event.preventDefault();
            if (event.ctrlKey || event.metaKey || event.deltaMode !== 0 || Math.abs(event.deltaY) >= 50) {
                const box = this.stage.getBoundingClientRect();
                this.zoomBy(Math.exp(-event.deltaY * 0.0016), event.clientX - box.left, event.clientY - box.top);
            } else {
                this.panBy(-event.deltaX, -event.deltaY);
            }
        }, { passive: false });
        if (matchMedia("(prefers-color-scheme: dark)").matches) this.surround();
    }

    /** Puts in the buttons of the view, of which the last, dark or light surroundings, is given back. */
    tools() {
        const tool = (/** @type {string} */ id, /** @type {string} */ text, /** @type {string} */ title, /** @type {() => void} */ act) => {
            const made = element("button", { id, text, title });
            made.addEventListener("click", act);
            return made;
        };
        const smaller = tool("smaller", "−", "Zoom out (−)", () => this.zoomBy(0.8));
        const larger = tool("larger", "+", "Zoom in (+)", () => this.zoomBy(1.25));
        smaller.setAttribute("aria-label", "Zoom out");
        larger.setAttribute("aria-label", "Zoom in");
        html("tools").prepend(
            tool("fit", "Fit", "Fit into the window (0)", () => this.fit()),
            tool("true-size", "100 %", "One pixel for a pixel (1)", () => this.trueSize()),
            smaller, element("output", { id: "zoom", text: "100 %", "aria-live": "off" }), larger,
        );
        const surround = tool("surround", "Dark", "Dark or light surroundings (d)", () => this.surround());
        html("tools").querySelector(".gap")?.after(surround);
        return surround;
    }

    /** @param {any} told */
    show(told) {
        const [head, tail] = told.keep;
        const first = this.svg === "";
        this.svg = this.svg.slice(0, head) + told.svg + this.svg.slice(this.svg.length - tail);
        const sized = told.size[0] !== this.size[0] || told.size[1] !== this.size[1];
        this.size = told.size;
        this.corners = told.corners;
        if (first || (sized && this.fitted)) this.fit();
        // Of what comes before the next frame only the last is shown.
        if (!this.waiting) {
            this.waiting = true;
            requestAnimationFrame(() => this.paint());
        }
        this.place();
    }

    paint() {
        this.waiting = false;
        const parsed = new DOMParser().parseFromString(this.svg, "image/svg+xml").documentElement;
        const drawing = document.importNode(parsed, true);
        drawing.setAttribute("width", "100%");
        drawing.setAttribute("height", "100%");
        // By itself, so that no name in it is one of the page's.
        this.inside.replaceChildren(drawing);
        this.serial += 1;
        this.stage.dataset.serial = String(this.serial);
        this.stage.dispatchEvent(new CustomEvent("painted"));
    }

    place() {
        const [width = 1, height = 1] = this.size;
        this.paper.style.left = `${this.left}px`;
        this.paper.style.top = `${this.top}px`;
        this.paper.style.width = `${width * this.zoom}px`;
        this.paper.style.height = `${height * this.zoom}px`;
        part("zoom", HTMLOutputElement).value = `${Math.round(this.zoom * 100)} %`;
        for (const act of this.moved) act();
    }

    fit() {
        const [width = 1, height = 1] = this.size;
        const room = [this.stage.clientWidth - 32, this.stage.clientHeight - 32];
        this.zoom = Math.min(MOST, Math.max(LEAST, Math.min((room[0] ?? 1) / width, (room[1] ?? 1) / height)));
        this.fitted = true;
        this.centre();
    }

    trueSize() {
        this.zoom = 1;
        this.fitted = false;
        this.centre();
    }

    centre() {
        const [width = 1, height = 1] = this.size;
        this.left = Math.round((this.stage.clientWidth - width * this.zoom) / 2);
        this.top = Math.round((this.stage.clientHeight - height * this.zoom) / 2);
        this.place();
    }

    /**
     * @param {number} factor
     * @param {number} [x]
     * @param {number} [y]
     */
    zoomBy(factor, x = this.stage.clientWidth / 2, y = this.stage.clientHeight / 2) {
        const zoom = Math.min(MOST, Math.max(LEAST, this.zoom * factor));
        this.left = x - ((x - this.left) / this.zoom) * zoom;
        this.top = y - ((y - this.top) / this.zoom) * zoom;
        this.zoom = zoom;
        this.fitted = false;
        this.place();
    }

    /**
     * @param {number} x
     * @param {number} y
     */
    panBy(x, y) {
        this.left += x;
        this.top += y;
        this.fitted = false;
        this.place();
    }

    surround() {
        const dark = document.body.dataset.surround !== "dark";
        document.body.dataset.surround = dark ? "dark" : "light";
        this.surroundings.textContent = dark ? "Light" : "Dark";
    }

    /**
     * The coordinates of a place in the window.
     * @param {{clientX: number, clientY: number}} event
     * @returns {[number, number]}
     */
    placeOf(event) {
        const box = this.stage.getBoundingClientRect();
        const [width = 1, height = 1] = this.size;
        const [[x0, y0], [x1, y1]] = this.corners;
        const across = (event.clientX - box.left - this.left) / (width * this.zoom);
        const down = (event.clientY - box.top - this.top) / (height * this.zoom);
        return [x0 + (x1 - x0) * across, y0 + (y1 - y0) * down];
    }

    /**
     * Where coordinates are on the stage, in pixels.
     * @param {readonly [number, number] | number[]} at
     * @returns {[number, number]}
     */
    onStage(at) {
        const [width = 1, height = 1] = this.size;
        const [[x0, y0], [x1, y1]] = this.corners;
        const [x = 0, y = 0] = at;
        return [
            this.left + ((x - x0) / (x1 - x0)) * width * this.zoom,
            this.top + ((y - y0) / (y1 - y0)) * height * this.zoom,
        ];
    }

    /** How long a pixel on the screen is in the sheet's coordinates. */
    get pixel() {
        const [[x0], [x1]] = this.corners;
        return Math.abs(x1 - x0) / ((this.size[0] ?? 1) * this.zoom);
    }
}
