// Undo and redo: their buttons and keys.

import { button } from "./parts.js";

/** @typedef {"undo" | "redo"} Way */

export class Undo {
    /** @param {(way: Way) => void} go */
    constructor(go) {
        for (const way of /** @type {const} */ (["undo", "redo"])) button(way).addEventListener("click", () => go(way));
        addEventListener("keydown", (event) => {
            // The editor has keys of its own for this.
            const inEditor = event.target instanceof Element && event.target.closest(".cm-editor") !== null;
            if (event.defaultPrevented || inEditor || !(event.ctrlKey || event.metaKey)) return;
            if (!["z", "Z", "y"].includes(event.key)) return;
            event.preventDefault();
            go(event.key === "z" && !event.shiftKey ? "undo" : "redo");
        });
    }

    /**
     * Shows whether there is something to take back or to do again, and what.
     * @param {Way} way
     * @param {boolean} can
     * @param {string} [what]
     */
    show(way, can, what) {
        button(way).disabled = !can;
        if (what !== undefined) button(way).title = what;
    }
}
