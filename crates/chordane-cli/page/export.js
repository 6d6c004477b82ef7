// Exporting what is shown, in each format.

import { announce, element, html, input } from "./parts.js";

/** A format: its ending, and the most frames of a clip. @typedef {{ ending: string, most: number | null }} Format */

export class Export {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {string} token
     * @param {() => string} name
     */
    constructor(wire, token, name) {
        this.token = token;
        this.name = name;
        this.moves = false;
        this.points = false;
        /** @type {Format[]} */
        this.formats = [];
        /** The exports that are being made, by the names that the program knows them by. @type {Map<string, HTMLProgressElement>} */
        this.going = new Map();
        this.count = 0;
        wire.on("hello", (told) => {
            this.formats = told.formats;
            this.show();
        });
        wire.on("exports", (told) => {
            for (const [id, done, total] of told.exports) {
                const bar = this.going.get(id);
                if (bar === undefined || total < 2) continue;
                [bar.max, bar.value] = [total, done];
                bar.title = `frame ${done} of ${total}`;
            }
        });
    }

    /**
     * @param {boolean} moves
     * @param {boolean} points
     */
    of(moves, points) {
        if (moves === this.moves && points === this.points) return;
        [this.moves, this.points] = [moves, points];
        this.show();
    }

    show() {
        const one = (/** @type {Format} */ format, /** @type {string} */ label) => {
            const act = element("button", { text: label, "data-format": label });
            act.addEventListener("click", () => void this.export(format));
            return act;
        };
        const label = (/** @type {Format} */ { ending, most }) => (most !== null && ending === "svg" ? "svg that moves" : ending);
        const plays = this.moves || this.points;
        html("frames-asked").hidden = !plays;
        const offered = this.formats.filter((format) => plays || format.most === null);
        const all = offered.map((format) => one(format, label(format)));
        if (this.points) all.push(one({ ending: "jsonl", most: null }, "pointer track"));
        html("export-formats").replaceChildren(...all);
    }

    /** @param {string} text */
    tell(text) {
        html("export-told").textContent = text;
    }

    /** @param {Format} format */
    async export({ ending, most }) {
        const file = `${this.name()}${most !== null && ending === "svg" ? "-moving" : ""}.${ending}`;
        this.count += 1;
        const id = `${Date.now()}-${this.count}`;
        const query = new URLSearchParams({ token: this.token, id });
        if (most !== null) {
            const frames = Number(input("frames").value);
            if (!Number.isInteger(frames) || frames < 1 || frames > most) {
                this.tell(`Frames: give a whole number from 1 to ${most}.`);
                input("frames").focus();
                return;
            }
            query.set("frames", String(frames));
        }
        const size = input("size").value.trim();
        if (size !== "" && ending !== "jsonl") query.set("size", size);
        this.tell(`${file} is being drawn …`);
        const stop = new AbortController();
        const bar = element("progress", { "aria-label": `${file} is being drawn` });
        const cancel = element("button", { text: "Cancel" });
        cancel.addEventListener("click", () => stop.abort());
        const row = element("div", { class: "row going", "data-export": file }, element("span", { text: file }), bar, cancel);
        html("exports").append(row);
        this.going.set(id, bar);
        try {
            const answer = await fetch(`/save/${encodeURIComponent(file)}?${query}`, { signal: stop.signal });
            if (!answer.ok) throw new Error(await answer.text());
            const address = URL.createObjectURL(await answer.blob());
            const link = element("a", { href: address, download: file });
            link.click();
            setTimeout(() => URL.revokeObjectURL(address), 60000);
            this.tell(`${file} is saved where the browser puts downloads.`);
        } catch (error) {
            if (stop.signal.aborted) this.tell(`${file} was cancelled; nothing is saved.`);
            else if (error instanceof TypeError) this.tell(`${file} could not be drawn to its end; nothing is saved. Try a smaller size or fewer frames.`);
            else this.tell(error instanceof Error ? error.message : String(error));
        }
        announce(html("export-told").textContent ?? "");
        this.going.delete(id);
        row.remove();
    }
}
