// The score's text: the editor, and how it stays the same text in all pages and in the file.

import {
    Annotation, autocompletion, bracketMatching, Compartment, completionKeymap, Decoration, defaultKeymap, drawSelection, EditorState,
    EditorView, highlightActiveLine, highlightActiveLineGutter, highlightSelectionMatches, hoverTooltip,
    indentWithTab, keymap, lineNumbers, lintGutter, searchKeymap, setDiagnostics, StateEffect, StateField,
    syntaxHighlighting,
} from "./vendor/editor.js";
import { colouring, colours, comments } from "./colouring.js";
import { Kept } from "./kept.js";
import { element, html, question } from "./parts.js";

/** @typedef {{name: string, form: string, about: string, example: string, method: boolean}} Word */

/** What is typed is sent after so many milliseconds of rest. */
const REST = 120;

/** What stands under the editor where no word is at the cursor. */
const WAY_OUT = "Escape, then Tab: out of the editor. Control and Space: the words of scores.";

const fromElsewhere = Annotation.define();
/** @type {import("@codemirror/state").StateEffectType<[number, number][]>} */
const numbersShown = StateEffect.define();

const numberMark = Decoration.mark({ class: "held-number" });
const numberField = StateField.define({
    create: () => Decoration.none,
    update(marks, transaction) {
        let now = marks.map(transaction.changes);
        for (const effect of transaction.effects) {
            if (!effect.is(numbersShown)) continue;
            const fits = effect.value.filter(([from, to]) => from < to && to <= transaction.newDoc.length);
            now = Decoration.set(fits.map(([from, to]) => numberMark.range(from, to)), true);
        }
        return now;
    },
    provide: (field) => EditorView.decorations.from(field),
});

/** @param {Word} word */
const card = (word) => element("div", { class: "word" },
    element("code", { text: word.form }), element("p", { text: word.about }), element("pre", { text: word.example }));

export class ScoreText {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {Word[]} words
     * @param {string} nonce
     */
    constructor(wire, words, nonce) {
        this.wire = wire;
        /** @type {Map<string, Word[]>} */
        this.words = new Map();
        for (const word of words) this.words.set(word.name, [...(this.words.get(word.name) ?? []), word]);
        /** Whether kept texts are to be offered once the program's text is there. */
        this.offers = false;
        /** The text that the program has, and its number. */
        this.known = "";
        this.version = 0;
        /** What was sent last, and to which version of the text the page's edits belong. */
        this.sent = "";
        this.base = 0;
        /** All that was sent and has not come back. @type {string[]} */
        this.pending = [];
        /** @type {ReturnType<typeof setTimeout> | undefined} */
        this.timer = undefined;
        /** @type {any} */
        this.mistake = null;
        /** @type {any[]} */
        this.findings = [];
        /** The line of the cursor, and what is done when it is another one. */
        this.line = 1;
        /** @type {(line: number) => void} */
        this.onLine = () => {};
        this.isDocument = false;
        this.kept = new Kept();
        this.wrapping = new Compartment();
        /** Whether the program was given a stored text and has not answered yet. */
        this.bringing = false;
        /** Which program it is that this page talks to. */
        this.run = "";
        this.view = new EditorView({ parent: html("editor"), state: this.state("", nonce) });
        html("help").textContent = WAY_OUT;
        wire.on("text", (told) => this.told(told));
        wire.on("clash", (told) => this.clash(told.text));
        addEventListener("pagehide", () => this.send());
        addEventListener("beforeunload", (event) => {
            this.send();
            // The browser asks before it throws away text that could not be stored.
            if (!this.kept.unsent(this.known, this.text)) event.preventDefault();
        });
    }

    /**
     * @param {string} doc
     * @param {string} nonce
     */
    state(doc, nonce) {
        const { words } = this;
        return EditorState.create({
            doc,
            extensions: [
                EditorView.cspNonce.of(nonce), this.wrapping.of([]), lineNumbers(), highlightActiveLine(), highlightActiveLineGutter(), drawSelection(),
                bracketMatching(), highlightSelectionMatches(), lintGutter(), numberField,
                colouring((name) => words.has(name), () => this.isDocument), comments(() => this.isDocument),
                syntaxHighlighting(colours), EditorView.contentAttributes.of({ "aria-label": "Text of the score" }),
                autocompletion({ override: [(context) => {
                    const before = context.matchBefore(/\w+/);
                    if (before === null || (before.from === before.to && !context.explicit)) return null;
                    const isMethod = context.state.sliceDoc(before.from - 1, before.from) === ".";
                    const options = [...words.values()].flat().filter((word) => word.method === isMethod)
                        .map((word) => ({ label: word.name, detail: word.form.slice(0, 60), info: () => card(word), type: "function" }));
                    return { from: before.from, options };
                }] }),
                hoverTooltip((view, at) => {
                    const found = this.wordAt(view.state, at);
                    if (found === undefined) return null;
                    return { pos: found.from, end: found.to, above: true, create: () => ({ dom: element("div", {}, ...found.words.map(card)) }) };
                }),
                keymap.of([
                    { key: "Mod-z", preventDefault: true, run: () => { this.send(); return this.wire.send({ ask: "undo" }); } },
                    { key: "Mod-y", mac: "Mod-Shift-z", preventDefault: true, run: () => this.wire.send({ ask: "redo" }) },
                    { key: "Mod-Shift-z", preventDefault: true, run: () => this.wire.send({ ask: "redo" }) },
                    { key: "Mod-s", preventDefault: true, run: () => { this.send(); return true; } },
                    ...completionKeymap, ...searchKeymap, ...defaultKeymap, indentWithTab,
                ]),
                EditorView.updateListener.of((update) => {
                    if (update.docChanged && !update.transactions.some((one) => one.annotation(fromElsewhere))) this.edited();
                    if (update.selectionSet || update.docChanged) this.cursor();
                }),
            ],
        });
    }

    /** The text is an SVG document: the words of scores mean nothing in it. */
    ofDocument() {
        this.isDocument = true;
        this.words.clear();
    }

    /** Whether long lines are broken. @param {boolean} on */
    wrap(on) {
        this.view.dispatch({ effects: this.wrapping.reconfigure(on ? EditorView.lineWrapping : []) });
    }

    get text() {
        return this.view.state.doc.toString();
    }

    /**
     * @param {EditorState} state
     * @param {number} at
     */
    wordAt(state, at) {
        const line = state.doc.lineAt(at);
        for (const found of line.text.matchAll(/[A-Za-z_]\w*/g)) {
            const [from, to] = [line.from + found.index, line.from + found.index + found[0].length];
            const words = this.words.get(found[0]);
            if (from <= at && at <= to && words !== undefined) return { from, to, words };
        }
        return undefined;
    }

    cursor() {
        const { state } = this.view;
        const at = state.selection.main.head;
        const found = this.wordAt(state, at);
        html("help").textContent = found === undefined ? WAY_OUT : found.words.map((word) => `${word.form}: ${word.about}`).join("  ");
        const line = state.doc.lineAt(at).number;
        if (line === this.line) return;
        this.line = line;
        this.onLine(line);
    }

    edited() {
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.send(), REST);
    }

    /** Sends what was typed, if something was. */
    send() {
        clearTimeout(this.timer);
        const { text } = this;
        this.kept.unsent(this.known, text);
        if (text === this.known || text === this.sent) return;
        if (!this.wire.send({ ask: "edit", base: this.base, text })) return;
        this.sent = text;
        this.pending.push(text);
    }

    /**
     * The line is there. What was typed meanwhile goes now to the program that it was typed for; to another one it is offered.
     * @param {string} path
     * @param {string} run
     */
    hello(path, run) {
        const isSame = this.run === run;
        if (this.run !== "") this.kept.unsent(this.known, this.text);
        this.run = run;
        this.sent = "";
        this.pending = [];
        this.kept.of(path);
        if (isSame) {
            this.send();
            return;
        }
        this.base = 0;
        this.offers = true;
        this.bringing = false;
        this.kept.collect();
    }

    /** Offers what was typed while no program was there, one text after the other. */
    offer() {
        const first = this.kept.first();
        if (first === undefined) return;
        if (first.text === this.text) {
            this.kept.drop();
            this.offer();
            return;
        }
        const done = () => {
            this.kept.drop();
            this.offer();
        };
        question("offer", "Text that was typed here while chordane was away is kept.", [
            ["Put it in", () => {
                // The stored copy goes when the program has answered.
                this.bringing = this.wire.send({ ask: "bring", before: first.before, text: first.text });
                if (!this.bringing) this.offer();
            }],
            ["Throw it away", done],
        ]);
    }

    /** @param {any} told */
    told(told) {
        if (this.bringing) {
            this.bringing = false;
            this.offers = true;
            this.kept.drop();
        }
        const before = this.known;
        if (told.change === null) this.known = told.text;
        else this.known = before.slice(0, told.change[0]) + told.text + before.slice(told.change[1]);
        this.version = told.version;
        const { text } = this;
        const at = told.change === null ? -1 : this.pending.lastIndexOf(this.known);
        if (at >= 0) {
            // An edit of this page as it was sent. What was typed since goes on from it.
            this.pending.splice(0, at + 1);
            if (this.pending.length === 0) {
                this.base = told.version;
                this.sent = "";
                if (text !== this.known) this.edited();
            }
            this.kept.unsent(this.known, text);
            return;
        }
        // A whole text comes when the line was opened: what was sent before may not have arrived.
        const arrived = told.change !== null && text === this.sent;
        if (text !== before && !arrived && this.base !== 0 && this.known !== text) {
            // What was typed belongs to the text before; the program brings both together.
            this.send();
            return;
        }
        this.put(this.known);
        this.base = told.version;
        this.sent = "";
        this.pending = [];
        this.kept.unsent(this.known, this.known);
        if (!this.offers) return;
        this.offers = false;
        this.offer();
    }

    /**
     * The typed text conflicts with a change elsewhere in the same lines. Undo reaches both; the page asks which one to keep.
     * @param {string} sent
     */
    clash(sent) {
        const mine = this.text === this.known ? sent : this.text;
        this.put(this.known);
        this.base = this.version;
        this.sent = "";
        this.pending = [];
        const putBack = () => {
            this.put(mine);
            this.send();
        };
        question("clash", "The same lines were changed elsewhere. That text is shown now; the one that you typed is kept.", [
            ["Put mine back", putBack], ["Keep the other", () => {}],
        ]);
    }

    /**
     * Puts a text in place of the present one, by changing no more than differs.
     * @param {string} text
     */
    put(text) {
        const now = this.text;
        if (now === text) return;
        let from = 0;
        const most = Math.min(now.length, text.length);
        while (from < most && now[from] === text[from]) from += 1;
        let tail = 0;
        while (tail < most - from && now[now.length - 1 - tail] === text[text.length - 1 - tail]) tail += 1;
        this.view.dispatch({
            changes: { from, to: now.length - tail, insert: text.slice(from, text.length - tail) },
            annotations: fromElsewhere.of(true),
        });
        this.showTrouble();
    }

    /** @param {[number, number][]} numbers */
    showNumbers(numbers) {
        this.view.dispatch({ effects: numbersShown.of(numbers) });
    }

    /** @param {number} line */
    toLine(line) {
        const { doc } = this.view.state;
        if (line < 1 || line > doc.lines) return;
        const at = doc.line(line).from;
        this.view.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: "center" }) });
    }

    /** Marks the mistake and the findings at their lines. */
    showTrouble() {
        const { doc } = this.view.state;
        /** @type {any[]} */
        const all = [];
        const at = (/** @type {number} */ line, /** @type {number | null} */ column) => {
            const found = doc.line(Math.min(Math.max(line, 1), doc.lines));
            const characters = [...found.text].slice(0, Math.max(0, (column ?? 1) - 1)).join("").length;
            const from = Math.min(found.from + characters, found.to);
            const word = /^\w+/.exec(doc.sliceString(from, found.to));
            return { from, to: column === null ? found.to : Math.min(found.to, from + (word?.[0]?.length ?? 1)) };
        };
        if (this.mistake !== null && this.mistake.line !== null) {
            const help = this.mistake.help === null ? "" : `\n${this.mistake.help}`;
            all.push({ ...at(this.mistake.line, this.mistake.column), severity: "error", message: this.mistake.message + help });
        } else {
            for (const finding of this.findings) {
                if (finding.line === null) continue;
                const severity = finding.level === "warning" ? "warning" : "info";
                all.push({ ...at(finding.line, null), severity, message: `${finding.message}\n${finding.mend}` });
            }
        }
        this.view.dispatch(setDiagnostics(this.view.state, all));
    }
}
