// What looks wrong: a list that leads to the place and to the line, and mends what a change of the text can mend.

import { element, html } from "./parts.js";

export class Findings {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./overlay.js").Overlay} overlay
     * @param {import("./text.js").ScoreText} text
     */
    constructor(wire, overlay, text) {
        this.wire = wire;
        this.overlay = overlay;
        this.text = text;
        this.broken = false;
        /** Which finding gets the focus once the present list is complete: after one was mended. @type {number | null} */
        this.focusNext = null;
        /** @type {{findings: any[], complete: boolean}} */
        this.last = { findings: [], complete: false };
        wire.on("findings", (told) => {
            this.last = told;
            this.show();
        });
        wire.on("mistake", (told) => {
            this.broken = told.mistake !== null;
            this.show();
        });
    }

    show() {
        const told = this.last;
        this.text.findings = told.findings;
        this.text.showTrouble();
        const list = html("finding-list");
        list.classList.toggle("stale", !told.complete);
        list.dataset.complete = String(told.complete);
        if (told.findings.length === 0) {
            const none = told.complete ? "Nothing looks wrong." : this.broken ? "Looked for once the mistake is mended." : "Looked for when it rests.";
            list.replaceChildren(element("li", { class: "none", text: none }));
            if (told.complete && this.focusNext !== null) this.text.view.focus();
            if (told.complete) this.focusNext = null;
            return;
        }
        list.replaceChildren(...told.findings.map((/** @type {any} */ finding, /** @type {number} */ at) => {
            const go = element("button", { class: "go" }, element("strong", { text: finding.code }), element("span", { text: finding.message }));
            go.addEventListener("click", () => {
                this.overlay.found = finding.at;
                this.overlay.draw();
                if (finding.line !== null) this.text.toLine(finding.line);
            });
            const item = element("li", { class: finding.level, "data-code": finding.code }, go, element("p", { text: finding.mend }));
            if (finding.click) {
                const mend = element("button", { class: "mend", text: "Mend it", disabled: !told.complete });
                mend.addEventListener("click", () => {
                    this.focusNext = at;
                    this.wire.send({ ask: "mend", finding: at });
                });
                item.append(mend);
            }
            return item;
        }));
        if (told.complete && this.focusNext !== null) {
            const next = list.children[Math.min(this.focusNext, list.children.length - 1)]?.querySelector("button");
            if (next instanceof HTMLElement) next.focus();
            this.focusNext = null;
        }
    }
}
