// Saving what is shown, in each format.

import { element, html, input } from "./parts.js";

const STILL = ["svg", "png"];
const MOVING = ["gif", "apng", "y4m"];

export class Save {
    /**
     * @param {string} token
     * @param {() => string} name
     */
    constructor(token, name) {
        this.token = token;
        this.name = name;
        this.moves = false;
        this.points = false;
        this.show();
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
        const one = (/** @type {string} */ ending, /** @type {boolean} */ clip, /** @type {string} */ label) => {
            const act = element("button", { text: label, "data-format": label });
            act.addEventListener("click", () => void this.save(ending, clip));
            return act;
        };
        const all = STILL.map((ending) => one(ending, false, ending));
        const plays = this.moves || this.points;
        html("frames-asked").hidden = !plays;
        if (plays) all.push(...MOVING.map((ending) => one(ending, true, ending)), one("svg", true, "svg that moves"));
        if (this.points) all.push(one("jsonl", false, "pointer track"));
        html("save-formats").replaceChildren(...all);
    }

    /**
     * @param {string} ending
     * @param {boolean} clip
     */
    async save(ending, clip) {
        const told = html("save-told");
        const file = `${this.name()}.${ending}`;
        const query = new URLSearchParams({ token: this.token });
        if (clip) query.set("frames", input("frames").value);
        const size = input("size").value.trim();
        if (size !== "" && ending !== "jsonl") query.set("size", size);
        told.textContent = `${file} is being drawn …`;
        try {
            const answer = await fetch(`/save/${encodeURIComponent(file)}?${query}`);
            if (!answer.ok) throw new Error(await answer.text());
            const address = URL.createObjectURL(await answer.blob());
            const link = element("a", { href: address, download: file });
            link.click();
            setTimeout(() => URL.revokeObjectURL(address), 60000);
            told.textContent = `${file} is saved where the browser puts downloads.`;
        } catch (error) {
            told.textContent = error instanceof Error ? error.message : String(error);
        }
    }
}
