// The keys over the picture, and those that work wherever the focus is.

import { button, html, isOnControl, isTyping } from "./parts.js";

/** So long, in milliseconds, after the pointer moved `w` means what it points at, though the editor has the focus. */
const POINTING = 2000;

export class Keys {
    /**
     * @param {import("./drag.js").Drag} drag
     * @param {import("./outline.js").NewOutline} outline
     * @param {(way: "undo" | "redo") => void} go
     */
    constructor(drag, outline, go) {
        this.drag = drag;
        this.outline = outline;
        this.wire = drag.wire;
        this.picture = drag.picture;
        this.overlay = drag.overlay;
        /** Steps from point to point that were not asked for yet, and whether some were and are not answered. */
        this.steps = 0;
        this.stepping = false;
        /** When the pointer was moved over the picture last, with nothing typed since. */
        this.pointed = -Infinity;
        drag.onChosen = () => {
            this.stepping = false;
            if (this.steps !== 0) this.next(0);
        };
        drag.wire.on("hello", () => { this.stepping = false; });
        this.picture.stage.addEventListener("pointermove", () => { this.pointed = performance.now(); });
        this.picture.stage.addEventListener("keydown", (event) => this.key(event));
        this.picture.stage.addEventListener("dblclick", (event) => {
            if (outline.active || isOnControl(event)) return;
            drag.tapped = false;
            clearTimeout(drag.copies);
            this.wire.send({ ask: "insert", at: this.picture.placeOf(event), reach: drag.reach, after: false });
        });
        addEventListener("keydown", (event) => this.first(event), true);
        addEventListener("keydown", (event) => this.anywhere(event, go));
    }

    /** Before the editor hears of a key. @param {KeyboardEvent} event */
    first(event) {
        const inEditor = event.target instanceof Element && event.target.closest(".cm-editor") !== null;
        if (!inEditor || event.ctrlKey || event.metaKey || event.altKey) return;
        const points = performance.now() - this.pointed < POINTING && (this.overlay.grip?.ways ?? 0) > 1;
        if (event.key === "w" && this.drag.isOver && points) {
            event.preventDefault();
            event.stopPropagation();
            this.picture.stage.focus({ preventScroll: true });
            this.drag.otherWay();
            return;
        }
        this.pointed = -Infinity;
    }

    /**
     * @param {KeyboardEvent} event
     * @param {(way: "undo" | "redo") => void} go
     */
    anywhere(event, go) {
        if (event.defaultPrevented || (event.target instanceof Element && event.target.closest(".cm-editor") !== null)) return;
        if (event.ctrlKey || event.metaKey) {
            if (event.key !== "z" && event.key !== "y" && event.key !== "Z") return;
            event.preventDefault();
            go(event.key === "z" && !event.shiftKey ? "undo" : "redo");
            return;
        }
        if (isTyping(event)) return;
        // A button that was reached by keys is pressed by Enter.
        const pressesButton = event.key === "Enter" && event.target instanceof HTMLElement && event.target.matches("button:focus-visible, summary:focus-visible");
        if (["Enter", "Backspace", "Delete"].includes(event.key) && !pressesButton) this.key(event);
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        if (event.ctrlKey || event.metaKey || event.defaultPrevented || isTyping(event)) return;
        if (this.outline.key(event)) {
            event.preventDefault();
            return;
        }
        const { picture, overlay, drag } = this;
        const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
        const up = picture.corners[1][1] > picture.corners[0][1] ? -1 : 1;
        /** @type {Record<string, [number, number]>} */
        const steps = {
            ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step * up], ArrowDown: [0, -step * up],
        };
        const by = steps[event.key];
        if (by !== undefined) {
            event.preventDefault();
            if (overlay.chosen !== null) drag.nudge(by);
            else picture.panBy(-by[0] * 20, by[1] * 20 * up);
            return;
        }
        const remove = () => {
            const at = overlay.chosen ?? overlay.grip?.at ?? null;
            if (at === null) drag.say("Nothing is chosen: click a vertex, or press n for the next one, then Delete.");
            else if (this.wire.send({ ask: "remove", at, reach: drag.reach })) drag.forget();
        };
        /** @type {Record<string, () => void>} */
        const keys = {
            "+": () => picture.zoomBy(1.25),
            "=": () => picture.zoomBy(1.25),
            "-": () => picture.zoomBy(0.8),
            0: () => picture.fit(),
            1: () => picture.trueSize(),
            d: () => picture.surround(),
            n: () => this.next(1),
            p: () => this.next(-1),
            N: () => this.next(1, true),
            P: () => this.next(-1, true),
            w: () => drag.otherWay(),
            i: () => this.insert(),
            a: () => this.outline.begin(),
            Delete: remove,
            Backspace: remove,
            Escape: () => {
                drag.letGo(false);
                drag.forget();
                overlay.from = null;
                html("measured").textContent = "";
                overlay.draw();
            },
            " ": () => button(html("time").hidden && !html("marks").hidden ? "marks-pause" : "play").click(),
        };
        const act = keys[event.key];
        if (act === undefined) return;
        event.preventDefault();
        act();
    }

    /** Puts a vertex in: after the chosen one, or where the pointer is. */
    insert() {
        const { chosen } = this.overlay;
        const { last, reach } = this.drag;
        if (chosen !== null) this.wire.send({ ask: "insert", at: chosen, reach, after: true });
        else if (last !== undefined) this.wire.send({ ask: "insert", at: this.picture.placeOf(last), reach, after: false });
        else this.drag.say("Choose a vertex first (n), or point at a side: i puts a vertex in there.");
    }

    /**
     * @param {1 | -1 | 0} by
     * @param {boolean} [items] From item to item.
     */
    next(by, items = false) {
        this.steps += by;
        if (this.stepping || this.steps === 0) return;
        const from = this.drag.chosenGrip?.grip ?? null;
        this.stepping = this.wire.send({ ask: "next", from, reach: this.drag.reach, way: 0, by: this.steps, items });
        this.steps = 0;
    }
}
