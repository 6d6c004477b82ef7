// The keys over the picture, and those that work wherever the focus is.

import { arrowOf, viewKeys, worksAnywhere } from "./keyboard.js";
import { button, html, isOnControl, isTyping } from "./parts.js";

/** So long, in milliseconds, after the pointer moved `w` means what it points at, though the editor has the focus. */
const POINTING = 2000;

export class Keys {
    /**
     * @param {import("./drag.js").Drag} drag
     * @param {import("./outline.js").NewOutline} outline
     */
    constructor(drag, outline) {
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
        addEventListener("keydown", (event) => {
            if (!event.defaultPrevented && worksAnywhere(event)) this.key(event);
        });
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

    /** @param {KeyboardEvent} event */
    key(event) {
        if (event.ctrlKey || event.metaKey || event.defaultPrevented || isTyping(event)) return;
        if (this.outline.key(event)) {
            event.preventDefault();
            return;
        }
        const { picture, overlay, drag } = this;
        const down = picture.corners[1][1] > picture.corners[0][1] ? 1 : -1;
        const by = arrowOf(event, down);
        if (by !== undefined) {
            event.preventDefault();
            if (overlay.chosen !== null) drag.nudge(by);
            else picture.panBy(-by[0] * 20, -by[1] * 20 * down);
            return;
        }
        const remove = () => {
            const at = overlay.chosen ?? overlay.grip?.at ?? null;
            if (at === null) drag.say("Nothing is chosen: click a vertex, or press n for the next one, then Delete.");
            else if (this.wire.send({ ask: "remove", at, reach: drag.reach })) drag.forget();
        };
        /** @type {Record<string, () => void>} */
        const keys = {
            ...viewKeys(picture),
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
