// The keys of tracing.

import { arrowOf, viewKeys, worksAnywhere } from "./keyboard.js";
import { button, input, part, short } from "./parts.js";

/** Presses of arrow keys with shorter pauses, in milliseconds, belong together. */
const ONE_BURST = 1200;

export class DraftKeys {
    /**
     * @param {import("./draft.js").Draft} draft
     * @param {import("./draftpointer.js").DraftPointer} pointer
     */
    constructor(draft, pointer) {
        this.draft = draft;
        this.pointer = pointer;
        this.picture = draft.picture;
        /** Where arrow keys want the chosen vertex, and when they did. @type {{of: [number, number], to: [number, number], when: number} | null} */
        this.pressed = null;
        this.picture.stage.addEventListener("keydown", (event) => this.key(event));
        addEventListener("keydown", (event) => {
            if (!event.defaultPrevented && worksAnywhere(event)) this.key(event);
        });
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        if (event.ctrlKey || event.metaKey) return;
        const by = arrowOf(event);
        const act = by === undefined ? this.acts(event)[event.key] : () => this.arrow(by);
        if (act === undefined) return;
        event.preventDefault();
        act();
    }

    /**
     * Moves the chosen vertex, or the cross.
     * @param {[number, number]} by
     */
    arrow(by) {
        const { draft, pressed } = this;
        const { chosen } = draft;
        const own = chosen === null ? undefined : draft.vertexOf(chosen);
        if (own === undefined || chosen === null) {
            draft.crossShown = true;
            draft.cross = [draft.cross[0] + by[0], draft.cross[1] + by[1]];
            part("position", HTMLOutputElement).value = `${short(draft.cross[0], 1)}, ${short(draft.cross[1], 1)}`;
            draft.draw();
            return;
        }
        // From where the last press wants it, which may not have been heard of yet.
        const goesOn = pressed !== null && String(pressed.of) === String(chosen);
        const from = goesOn ? pressed.to : own.at;
        const to = /** @type {[number, number]} */ ([from[0] + by[0], from[1] + by[1]]);
        // Presses with short pauses are taken back together.
        const now = performance.now();
        const more = goesOn && now - pressed.when < ONE_BURST;
        this.pressed = { of: chosen, to, when: now };
        const step = { move: { shape: chosen[0], vertex: chosen[1], to } };
        draft.wire.send({ ask: "step", step, snap: { within: 0, grid: null, edges: false }, more });
    }

    /**
     * @param {KeyboardEvent} event
     * @returns {Record<string, () => void>}
     */
    acts(event) {
        const { draft, picture } = this;
        return {
            ...viewKeys(picture),
            a: () => draft.add(draft.crossShown || draft.last === undefined ? draft.cross : picture.placeOf(draft.last)),
            Enter: () => draft.finish(!event.shiftKey),
            z: () => button("undo").click(),
            y: () => button("redo").click(),
            c: () => draft.setKind("corner"),
            s: () => draft.setKind("soft"),
            r: () => draft.setKind("rounded"),
            h: () => button("hole").click(),
            x: () => draft.deleteShape(),
            n: () => draft.cycle(1),
            p: () => draft.cycle(-1),
            e: () => input("snap-edges").click(),
            g: () => input("snap-grid").click(),
            v: () => draft.nextVertex(),
            Delete: () => draft.remove(),
            Backspace: () => draft.remove(),
            Escape: () => {
                [draft.chosen, draft.crossShown] = [null, false];
                this.pointer.callOff();
            },
        };
    }
}
