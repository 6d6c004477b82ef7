// Seeds: another one, back, the last twelve, and the one that is kept.

import { button, element, html, input } from "./parts.js";

export class Dice {
    /** @param {import("./wire.js").Wire} wire */
    constructor(wire) {
        this.wire = wire;
        this.seed = 0;
        /** @type {{seed: number, picture: string}[]} */
        this.strip = [];
        // A score that asks for no dice has nothing to roll.
        wire.on("run", (told) => { html("dice").hidden = !told.rolls; });
        wire.on("seeds", (told) => this.told(told));
        button("roll").addEventListener("click", () => wire.send({ ask: "seed", seed: null }));
        button("roll-back").addEventListener("click", () => {
            const at = this.strip.findIndex((one) => one.seed === this.seed);
            const before = this.strip[at - 1];
            if (before !== undefined) this.pick(before.seed);
        });
        button("keep-seed").addEventListener("click", () => wire.send({ ask: "keep-seed" }));
        input("seed").addEventListener("change", () => {
            const seed = Number(input("seed").value);
            if (Number.isSafeInteger(seed) && seed >= 0) this.pick(seed);
            else input("seed").value = String(this.seed);
        });
    }

    /** @param {number} seed */
    pick(seed) {
        this.wire.send({ ask: "seed", seed });
    }

    /** @param {any} told */
    told(told) {
        this.seed = told.seed;
        this.strip = told.strip;
        input("seed").value = String(told.seed);
        button("keep-seed").hidden = told.own;
        const at = told.strip.findIndex((/** @type {any} */ one) => one.seed === told.seed);
        button("roll-back").disabled = at < 1;
        html("strip").hidden = told.strip.length < 2;
        html("strip").replaceChildren(...told.strip.map((/** @type {any} */ one) => {
            const tile = element("button", { class: "tile", title: `Seed ${one.seed}`, "aria-pressed": String(one.seed === told.seed) },
                element("img", { src: one.picture, alt: `Seed ${one.seed}` }));
            tile.addEventListener("click", () => this.pick(one.seed));
            return tile;
        }));
    }
}
