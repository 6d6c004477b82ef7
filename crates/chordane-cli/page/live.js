// The live page: its parts, put together.

import { access, tellRefused, token } from "./access.js";
import { Dice } from "./dice.js";
import { Columns } from "./columns.js";
import { Drag } from "./drag.js";
import { Export } from "./export.js";
import { Findings } from "./findings.js";
import { Keys } from "./keys.js";
import { Knobs } from "./knobs.js";
import { Marks } from "./marks.js";
import { NewOutline } from "./outline.js";
import { Overlay } from "./overlay.js";
import { announce, button, element, html, short, toast } from "./parts.js";
import { Picture } from "./picture.js";
import { ScoreText } from "./text.js";
import { Time } from "./time.js";
import { Undo } from "./undo.js";
import { Wire } from "./wire.js";

const nonce = meta("nonce");
if (await access() === "refused") {
    tellRefused();
    document.body.dataset.line = "refused";
    // Nothing of the page works without the program, until another address is opened in this tab.
    await new Promise(() => {});
}
const words = await (await fetch(`/own/words.json?token=${encodeURIComponent(token)}`)).json();
const wire = new Wire();
const picture = new Picture();
const overlay = new Overlay(picture);
const text = new ScoreText(wire, words, nonce);
const drag = new Drag(wire, picture, overlay, text);
new Keys(drag, new NewOutline(wire, drag, overlay, text));
new Knobs(wire, overlay);
const marks = new Marks(wire, overlay);
drag.onMark = (/** @type {number} */ number) => marks.pick(number);
drag.markAt = (/** @type {PointerEvent} */ event) => marks.at(event);
drag.hasMarks = () => marks.marks.size > 0;
new Dice(wire);
new Time(wire, drag);
new Findings(wire, overlay, text);
let name = "picture";
let state = "";
const exports = new Export(wire, token, () => name);
new Columns(text);

/** @param {string} of */
function meta(of) {
    return document.querySelector(`meta[name=${of}]`)?.getAttribute("content") ?? "";
}

wire.onState = (/** @type {"open" | "closed" | "refused"} */ line) => {
    document.body.dataset.line = line;
    if (line === "closed") announce("No connection to chordane.");
    html("state").textContent = line !== "closed" ? "" : "No connection to chordane. What you type is kept in this browser, and offered once it is back.";
};

wire.on("hello", (told) => {
    name = told.name.replace(/\.(chord|svg)$/, "");
    html("name").textContent = told.name;
    document.title = `${told.name} – Chordane`;
    document.body.dataset.kind = told.kind;
    if (told.kind === "document") text.ofDocument();
    text.hello(told.path, told.run);
    const bones = html("bones");
    bones.replaceChildren(...told.bones.map((/** @type {string} */ layer) => {
        const toggle = element("button", { text: layer, "data-layer": layer, "aria-pressed": "false" });
        toggle.addEventListener("click", () => {
            const on = toggle.getAttribute("aria-pressed") !== "true";
            toggle.setAttribute("aria-pressed", String(on));
            const layers = [...bones.children].filter((one) => one.getAttribute("aria-pressed") === "true")
                .map((one) => one.getAttribute("data-layer"));
            wire.send({ ask: "bones", layers });
        });
        return toggle;
    }));
});

wire.on("bones", (told) => {
    for (const one of html("bones").children) {
        one.setAttribute("aria-pressed", String(told.layers.includes(one.getAttribute("data-layer"))));
    }
});

// What the cursor's line makes is marked in the picture.
text.onLine = (/** @type {number} */ line) => wire.send({ ask: "line", line });
wire.on("lined", (told) => {
    overlay.lined = told.outlines;
    overlay.draw();
});

wire.on("picture", (told) => {
    picture.show(told);
    if (overlay.lined.length > 0) wire.send({ ask: "line", line: text.line });
});

wire.on("run", (told) => {
    exports.of(told.moves, told.points);
    const items = told.items === 1 ? "1 item" : `${told.items} items`;
    state = `${items} · ${short(told.milliseconds, told.milliseconds < 10 ? 1 : 0)} ms`;
    html("state").textContent = state;
    const lines = [...told.notes.map((/** @type {string} */ note) => `note: ${note}`), ...told.printed];
    html("printed").hidden = lines.length === 0;
    html("printed-lines").textContent = lines.slice(0, 500).join("\n");
});

wire.on("mistake", (told) => {
    const box = html("mistake");
    const { mistake } = told;
    text.mistake = mistake;
    text.showTrouble();
    box.hidden = mistake === null;
    document.body.classList.toggle("broken", mistake !== null);
    if (mistake === null) return;
    const line = mistake.line === null ? "" : `Line ${mistake.line}: `;
    const go = element("button", { class: "go", text: `${line}${mistake.message}` });
    go.addEventListener("click", () => mistake.line !== null && text.toLine(mistake.line));
    box.replaceChildren(go, ...(mistake.help === null ? [] : [element("p", { text: mistake.help })]));
    if (!mistake.click) return;
    const mend = element("button", { class: "mend", text: "Mend it" });
    mend.addEventListener("click", () => {
        wire.send({ ask: "mend-mistake" });
        text.view.focus();
    });
    box.append(mend);
});

wire.on("slow", (told) => {
    button("stop").hidden = told.seconds === 0;
    html("state").textContent = told.seconds > 0 ? `The score runs for ${short(told.seconds, 1)} s …` : state;
});
button("stop").addEventListener("click", () => wire.send({ ask: "stop" }));

const undo = new Undo((way) => {
    text.send();
    drag.forget();
    wire.send({ ask: way });
});
wire.on("history", (told) => {
    undo.show("undo", told.undo !== null, told.undo ?? "");
    undo.show("redo", told.redo !== null, told.redo ?? "");
});
wire.on("file", (told) => {
    const shown = html("file");
    shown.dataset.state = told.state;
    const time = new Date(told.saved).toLocaleTimeString([], { hour12: false });
    const asks = told.state === "asking" ? "not saved: see the question" : told.told;
    shown.textContent = told.state === "saved" && told.saved > 0 ? `saved ${time}` : asks;
    html("asking").hidden = told.state !== "asking";
    html("asking-told").textContent = told.told;
});
button("keep-own").addEventListener("click", () => wire.send({ ask: "keep", own: true }));
button("keep-theirs").addEventListener("click", () => wire.send({ ask: "keep", own: false }));

wire.on("refused", (told) => toast(told.message));

wire.open();
