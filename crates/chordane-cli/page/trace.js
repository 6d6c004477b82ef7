// Tracing: outlines over a picture, vertex by vertex. The page's parts, put together.

import { token } from "./access.js";
import { Draft } from "./draft.js";
import { DraftKeys } from "./draftkeys.js";
import { DraftPointer } from "./draftpointer.js";
import { DraftView } from "./draftview.js";
import { Magnifier } from "./magnifier.js";
import { button, element, html, input, question, toast } from "./parts.js";
import { Picture } from "./picture.js";
import { Undo } from "./undo.js";
import { Wire } from "./wire.js";

const wire = new Wire();
const picture = new Picture();
const draft = new Draft(wire, picture);
/** @type {HTMLImageElement | undefined} */
let photo;
new DraftView(draft);
new Magnifier(draft, () => photo);
new DraftKeys(draft, new DraftPointer(draft));
const undo = new Undo((way) => wire.send({ ask: way }));
draft.changed.push(() => {
    undo.show("undo", draft.now.undo > 0);
    undo.show("redo", draft.now.redo > 0);
});

wire.onState = (/** @type {"open" | "closed" | "refused"} */ line) => {
    document.body.dataset.line = line;
    html("state").textContent = line !== "closed" ? "" : "No connection to chordane. What you drew is on the disk.";
};

wire.on("hello", (told) => {
    const file = (/** @type {string} */ name) => name.split(/[/\\]/).at(-1) ?? name;
    html("name").textContent = `${file(told.name)} → ${told.out.split(", ").map(file).join(", ")}`;
    html("name").title = told.out;
    document.title = `${file(told.name)} – tracing – Chordane`;
    draft.cross = [told.size[0] / 2, told.size[1] / 2];
    photo = new Image();
    photo.alt = "The picture that is traced";
    photo.draggable = false;
    photo.addEventListener("load", () => { picture.stage.dataset.serial = "1"; });
    photo.src = `/own/photo?token=${token}`;
    picture.svg = "photo";
    picture.size = told.size;
    picture.corners = [[0, 0], told.size];
    photo.style.cssText = "display: block; width: 100%; height: 100%; opacity: var(--photo, 1)";
    picture.inside.replaceChildren(photo);
    picture.fit();
    shade();
});
wire.on("file", (told) => {
    html("file").textContent = told.told;
    html("file").dataset.state = told.told === "" ? "saved" : "unsaved";
});
wire.on("question", (told) => {
    const asked = told.question;
    if (asked === null) {
        document.getElementById("answer")?.remove();
        return;
    }
    const answer = (/** @type {boolean} */ yes) => () => void wire.send({ ask: "answer", yes });
    /** @type {[string, () => void][]} */
    const answers = [[asked.yes, answer(true)]];
    if (asked.no !== null) answers.push([asked.no, answer(false)]);
    question("answer", asked.told, answers);
});
wire.on("refused", (told) => toast(told.message));

button("close-shape").addEventListener("click", () => draft.finish(true));
button("end-open").addEventListener("click", () => draft.finish(false));
button("remove").addEventListener("click", () => draft.remove());
button("hole").addEventListener("click", () => draft.hole() || toast("There is no shape yet: click to begin one."));
button("delete").addEventListener("click", () => draft.deleteShape());
for (const one of document.querySelectorAll("button[data-kind]")) {
    one.addEventListener("click", () => draft.setKind(one.getAttribute("data-kind") ?? "corner"));
}
input("radius").addEventListener("change", () => draft.kindName === "rounded" && draft.setKind("rounded"));
function shade() {
    picture.paper.style.setProperty("--photo", input("opacity").value);
}
input("opacity").addEventListener("input", shade);

for (const [label, ending] of [["score", "chord"], ["Rust", "rs"], ["path data", "txt"], ["SVG", "svg"]]) {
    const copy = element("button", { text: `Copy ${label}`, "data-copy": ending ?? "" });
    copy.addEventListener("click", async () => {
        const answer = await fetch(`/save/outline.${ending}?token=${token}`);
        const text = await answer.text();
        html("export-told").textContent = await navigator.clipboard.writeText(text).then(() => `Copied as ${label}: ${text.length} characters.`, () => "The browser does not let this page copy.");
    });
    html("copies").append(copy);
}

draft.show();
wire.open();
