// The two lines under the picture: where the pointer is, what it measures, and what it points at.

import { html, part, short } from "./parts.js";

export class Readout {
    /** @param {import("./picture.js").Picture} picture */
    constructor(picture) {
        this.picture = picture;
    }

    /**
     * A position with as many decimals as a pixel of the screen can show.
     * @param {[number, number]} at
     */
    text(at) {
        const digits = Math.min(4, Math.max(0, Math.ceil(-Math.log10(this.picture.pixel))));
        return `${short(at[0], digits)}, ${short(at[1], digits)}`;
    }

    /**
     * Shows the pointer's position, and how far and in which direction it is from a place.
     * @param {[number, number]} at
     * @param {[number, number] | null} from
     */
    position(at, from) {
        part("position", HTMLOutputElement).value = this.text(at);
        if (from === null) return;
        const [x, y] = [at[0] - from[0], at[1] - from[1]];
        html("measured").textContent = `Δ ${short(Math.hypot(x, y))} at ${short((Math.atan2(y, x) * 180) / Math.PI, 1)}°`;
    }

    /**
     * Shows what lies there: the point that can be dragged, and the item.
     * @param {any} item
     * @param {import("./drag.js").Grip | null} grip
     */
    under(item, grip) {
        /** @type {string[]} */
        const parts = [];
        if (grip !== null && grip.numbers.length === 0) {
            parts.push(`${grip.what}: no number of the score moves it`);
        } else if (grip !== null) {
            const points = grip.moved_count === 1 ? "1 other point" : `${grip.moved_count} other points`;
            const others = grip.moved_count > 0 ? `, with ${points}` : "";
            const ways = grip.ways > 1 ? ` (way ${grip.way + 1} of ${grip.ways}: w)` : "";
            const count = grip.numbers.length === 1 ? "1 number" : `${grip.numbers.length} numbers`;
            parts.push(`${grip.what}: ${count}${others}${ways}`);
        }
        if (item !== null) {
            const name = item.name === null ? `item ${item.number}` : item.name;
            parts.push(`${name}${item.line === null ? "" : `, line ${item.line}`} · ${item.figures}`);
            if (document.body.dataset.kind === "document") parts.push("points of an .svg document cannot be dragged: change its text");
        }
        html("under").textContent = parts.join(" — ");
        html("own").textContent = item === null || item.own === null ? "" : `${short(item.own[0])}, ${short(item.own[1])} on the item itself`;
    }

    /** The pointer is not over the picture. */
    clear() {
        part("position", HTMLOutputElement).value = "–";
        html("own").textContent = "";
        html("measured").textContent = "";
    }
}
