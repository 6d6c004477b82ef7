// Tracing: outlines over a picture, vertex by vertex.

import { token } from "./access.js";
import { Fingers } from "./fingers.js";
import { announce, button, drawn, element, html, input, isOnControl, isTyping, part, question, reachOf, short, stillOf, toast } from "./parts.js";
import { Picture } from "./picture.js";
import { Wire } from "./wire.js";

/** @typedef {"corner" | "soft" | {rounded: number}} Kind */
/** @typedef {{at: [number, number], kind: Kind}} Vertex */
/** @typedef {{id: number, closed: boolean, hole_of: number | null, outline: string, vertices: Vertex[]}} Shape */
/** @typedef {{shapes: Shape[], active: number | null, hole_of: number | null, undo: number, redo: number}} Draft */

/** Presses of arrow keys with shorter pauses, in milliseconds, belong together. */
const ONE_BURST = 1200;
/** The magnifier shows so much larger. */
const LARGER = 4;

const wire = new Wire();
const picture = new Picture();
const overlay = part("overlay", SVGSVGElement);
const { stage } = picture;
/** @type {Draft} */
let draft = { shapes: [], active: null, hole_of: null, undo: 0, redo: 0 };
/** @type {Draft | null} */
let tried = null;
/** The chosen vertex: its shape and its number. @type {[number, number] | null} */
let chosen = null;
/** @type {any} */
let near = null;
/** Where a vertex would be put by keys. @type {[number, number]} */
let cross = [0, 0];
let crossShown = false;
let kindName = "corner";
/** @type {{what: "pan" | "move" | "pull" | "add", shape: number, place: number, x: number, y: number, moved: boolean} | null} */
let doing = null;
/** Where arrow keys want the chosen vertex, and when they did. @type {{of: [number, number], to: [number, number], when: number} | null} */
let pressed = null;
/** @type {PointerEvent | undefined} */
let last;
/** @type {HTMLImageElement | undefined} */
let photoShown;
let looking = false;
let lookAgain = false;
let trying = false;
/** @type {any} */
let tryNext = null;

wire.onState = (/** @type {"open" | "closed" | "refused"} */ line) => {
    document.body.dataset.line = line;
    html("state").textContent = line !== "closed" ? "" : "No connection to chordane. What you drew is on the disk.";
};

wire.on("hello", (told) => {
    const file = (/** @type {string} */ name) => name.split(/[/\\]/).at(-1) ?? name;
    html("name").textContent = `${file(told.name)} → ${told.out.split(", ").map(file).join(", ")}`;
    html("name").title = told.out;
    document.title = `${file(told.name)} – tracing – Chordane`;
    cross = [told.size[0] / 2, told.size[1] / 2];
    const photo = new Image();
    photo.alt = "The picture that is traced";
    photo.draggable = false;
    photo.addEventListener("load", () => { stage.dataset.serial = "1"; });
    photo.src = `/own/photo?token=${token}`;
    picture.svg = "photo";
    picture.size = told.size;
    picture.corners = [[0, 0], told.size];
    photo.style.cssText = "display: block; width: 100%; height: 100%; opacity: var(--photo, 1)";
    photoShown = photo;
    picture.inside.replaceChildren(photo);
    picture.fit();
    shade();
});

wire.on("draft", (told) => {
    const before = draft;
    draft = told;
    tried = null;
    button("undo").disabled = told.undo === 0;
    button("redo").disabled = told.redo === 0;
    if (chosen !== null && vertexOf(chosen) === undefined) chosen = null;
    say(before);
    list();
    draw();
    look();
});
wire.on("tried", (told) => {
    trying = false;
    if (doing !== null) tried = told;
    draw();
    if (tryNext !== null) {
        const next = tryNext;
        tryNext = null;
        attempt(next);
    }
});
wire.on("near", (told) => {
    looking = false;
    near = told;
    tellUnder();
    draw();
    if (lookAgain) look();
});
wire.on("file", (told) => { html("file").textContent = told.told; html("file").dataset.state = told.told === "" ? "saved" : "unsaved"; });
wire.on("question", (told) => {
    const asked = told.question;
    if (asked === null) {
        document.getElementById("answer")?.remove();
        return;
    }
    const answer = (/** @type {boolean} */ yes) => () => void wire.send({ ask: "answer", yes });
    question("answer", asked.told, [[asked.yes, answer(true)], ...(asked.no === null ? [] : /** @type {[string, () => void][]} */ ([[asked.no, answer(false)]]))]);
});
wire.on("refused", (told) => toast(told.message));

/** @returns {Kind} */
function kind() {
    return kindName === "rounded" ? { rounded: Number(input("radius").value) } : /** @type {Kind} */ (kindName);
}

function snap() {
    const step = Number(input("grid").value);
    return {
        within: input("snap-vertices").checked || input("snap-edges").checked ? reachOf(last) * picture.pixel : 0,
        grid: input("snap-grid").checked && step > 0 ? step : null, edges: input("snap-edges").checked,
    };
}

/** @param {any} what */
function step(what) {
    wire.send({ ask: "step", step: what, snap: snap() });
}

/** Shows what a step would make; one question at a time, and of those that come meanwhile the last. @param {any} what */
function attempt(what) {
    if (trying) {
        tryNext = what;
        return;
    }
    trying = wire.send({ ask: "try", step: what, snap: snap() });
}

/** @param {[number, number]} of */
function vertexOf([shape, vertex]) {
    return draft.shapes.find((one) => one.id === shape)?.vertices[vertex];
}

const active = () => draft.shapes.find((one) => one.id === draft.active);

function look() {
    if (last === undefined || doing !== null) return;
    if (looking) {
        lookAgain = true;
        return;
    }
    lookAgain = false;
    looking = wire.send({ ask: "look", at: picture.placeOf(last), reach: reachOf(last) * picture.pixel, snap: snap() });
}

function draw() {
    const shown = tried ?? draft;
    const scale = picture.zoom;
    /** @type {SVGElement[]} */
    const parts = [];
    const moved = `matrix(${scale} 0 0 ${scale} ${picture.left} ${picture.top})`;
    for (const shape of shown.shapes) {
        const state = shape.id === shown.active ? "active" : shape.hole_of === null ? "done" : "done hole";
        parts.push(drawn("path", { class: `traced-halo`, d: shape.outline, transform: moved }));
        parts.push(drawn("path", { class: `traced ${state}${shape.closed ? " closed" : ""}`, d: shape.outline, transform: moved, "data-shape": shape.id }));
    }
    for (const shape of shown.shapes) {
        const isActive = shape.id === shown.active;
        for (const [number, vertex] of shape.vertices.entries()) {
            const [x, y] = picture.onStage(vertex.at);
            const isChosen = chosen !== null && chosen[0] === shape.id && chosen[1] === number;
            const name = `vertex ${isActive ? "of-active" : ""} ${isChosen ? "is-chosen" : ""}`;
            const size = isActive ? 4.5 : 3.5;
            if (vertex.kind === "corner") parts.push(drawn("rect", { class: name, x: x - size, y: y - size, width: 2 * size, height: 2 * size }));
            else if (vertex.kind === "soft") parts.push(drawn("circle", { class: name, cx: x, cy: y, r: size + 0.5 }));
            else parts.push(drawn("rect", { class: name, x: x - size, y: y - size, width: 2 * size, height: 2 * size, rx: size * 0.7 }));
        }
    }
    const from = active()?.vertices.at(-1);
    const to = crossShown ? cross : doing === null && near !== null && near.vertex === null && last !== undefined ? near.put : null;
    if (to !== null) {
        const [x, y] = picture.onStage(to);
        if (from !== undefined && tried === null && !(active()?.closed ?? true)) {
            const [a, b] = picture.onStage(from.at);
            parts.push(drawn("path", { class: "next", d: `M${a} ${b}L${x} ${y}` }));
        }
        parts.push(drawn("path", { class: "cross", d: `M${x - 9} ${y}H${x + 9}M${x} ${y - 9}V${y + 9}` }));
    }
    overlay.replaceChildren(...parts);
    magnify();
}
picture.moved.push(draw);

/** The picture under the pointer, larger. */
function magnify() {
    const glass = part("magnifier", HTMLCanvasElement);
    const photo = photoShown;
    const at = crossShown ? cross : last === undefined ? null : picture.placeOf(last);
    glass.hidden = at === null;
    if (at === null || photo === undefined || !photo.complete) return;
    const pen = glass.getContext("2d");
    if (pen === null) return;
    const shownAt = LARGER * Math.max(picture.zoom, 0.5);
    const side = glass.width / shownAt;
    pen.imageSmoothingEnabled = shownAt < 6;
    pen.fillStyle = "#888";
    pen.fillRect(0, 0, glass.width, glass.height);
    pen.drawImage(photo, at[0] - side / 2, at[1] - side / 2, side, side, 0, 0, glass.width, glass.height);
    const middle = glass.width / 2;
    pen.strokeStyle = "#fff";
    pen.lineWidth = 3;
    const lines = new Path2D(`M${middle - 14} ${middle}H${middle + 14}M${middle} ${middle - 14}V${middle + 14}`);
    pen.stroke(lines);
    pen.strokeStyle = "#111";
    pen.lineWidth = 1;
    pen.stroke(lines);
    // Where the pointer is not.
    const [x, y] = picture.onStage(at);
    glass.style.left = x > stage.clientWidth - 320 && y < 170 ? "10px" : "";
}

function tellUnder() {
    const names = { corner: "corner", soft: "soft vertex" };
    let told = "";
    if (near?.vertex !== null && near !== null) {
        const vertex = vertexOf(near.vertex);
        const name = vertex === undefined ? "" : typeof vertex.kind === "string" ? names[vertex.kind] : `rounded by ${short(vertex.kind.rounded)}`;
        const [id, place] = near.vertex;
        const closes = place === 0 && id === active()?.id && active()?.closed === false;
        told = `shape ${id}, vertex ${place}: ${name}. Drag it${closes ? ", or click it to close the shape" : ""}`;
    } else if (near?.side) {
        told = `shape ${near.side[0]}, side ${near.side[1]}. Drag it into a curve, or Shift and click for a vertex in it`;
    } else if (draft.hole_of !== null) {
        told = `Click to begin a hole in shape ${draft.hole_of}`;
    } else {
        told = active() === undefined ? "Click to begin a shape" : "Click for the next vertex; Enter closes the shape";
    }
    html("under").textContent = told;
    stage.style.cursor = near?.vertex ? "move" : near?.side ? "grab" : "crosshair";
}

/** Says what is chosen, or what was drawn, to those who listen. @param {Draft} before */
function say(before) {
    const own = chosen === null ? undefined : vertexOf(chosen);
    const count = (/** @type {Draft} */ of) => of.shapes.map((shape) => `${shape.vertices.length}${shape.closed}`).join();
    if (own !== undefined && chosen !== null) {
        announce(`shape ${chosen[0]}, vertex ${chosen[1]}, at ${short(own.at[0], 1)}, ${short(own.at[1], 1)}. Arrow keys move it, Delete takes it out.`);
    } else if (count(before) !== count(draft)) {
        const shape = active() ?? draft.shapes.at(-1);
        if (shape !== undefined) announce(`shape ${shape.id}: ${shape.vertices.length} vertices, ${shape.closed ? "closed" : "open"}.`);
    }
}

function list() {
    html("shapes").replaceChildren(...draft.shapes.map((shape) => {
        const hole = shape.hole_of === null ? "" : `, hole in ${shape.hole_of}`;
        const count = shape.vertices.length === 1 ? "1 vertex" : `${shape.vertices.length} vertices`;
        const pick = element("button", { "aria-pressed": String(shape.id === draft.active), "data-shape": shape.id,
            text: `Shape ${shape.id}: ${count}, ${shape.closed ? "closed" : "open"}${hole}` });
        pick.addEventListener("click", () => step({ pick: { shape: shape.id } }));
        return element("li", {}, pick);
    }));
    const none = draft.active === null && chosen === null;
    button("close-shape").disabled = draft.active === null;
    button("end-open").disabled = draft.active === null;
    button("hole").disabled = draft.shapes.length === 0;
    button("delete").disabled = none;
    button("remove").disabled = chosen === null;
}

/** @param {boolean} closed */
const finish = (closed) => draft.active !== null && step({ finish: { closed } });
const shapeInHand = () => chosen?.[0] ?? draft.active;
const remove = () => chosen !== null && step({ remove: { shape: chosen[0], vertex: chosen[1] } });

/** @param {string} name */
function setKind(name) {
    kindName = name;
    for (const one of document.querySelectorAll("[data-kind]")) {
        if (one instanceof HTMLButtonElement) one.setAttribute("aria-pressed", String(one.dataset.kind === name));
    }
    if (chosen !== null) step({ change: { shape: chosen[0], vertex: chosen[1], kind: kind() } });
}

// What the first of two fingers began is called off.
new Fingers(picture, () => {
    [doing, tried, tryNext] = [null, null, null];
    draw();
});

/**
 * The vertex at a place of the window: a finger has not been there before it presses.
 * @param {PointerEvent} event
 * @returns {[number, number] | null}
 */
function vertexAt(event) {
    const box = stage.getBoundingClientRect();
    /** @type {[number, number] | null} */
    let best = null;
    let nearest = reachOf(event);
    for (const shape of draft.shapes) {
        for (const [number, vertex] of shape.vertices.entries()) {
            const [x, y] = picture.onStage(vertex.at);
            const apart = Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y);
            if (apart <= nearest) [best, nearest] = [[shape.id, number], apart];
        }
    }
    return best;
}

stage.addEventListener("pointerdown", (event) => {
    if (isOnControl(event)) return;
    stage.focus({ preventScroll: true });
    crossShown = false;
    // What was found by hovering may be of another place: a finger was not here before, and an answer may be late.
    const vertex = vertexAt(event);
    if (String(vertex) !== String(near?.vertex ?? null)) near = vertex === null ? null : { vertex, side: null, shape: null, put: picture.placeOf(event) };
    last = event;
    stage.setPointerCapture(event.pointerId);
    const base = { x: event.clientX, y: event.clientY, moved: false };
    if (event.button !== 0) doing = { what: "pan", shape: 0, place: 0, ...base };
    else if (near?.vertex) doing = { what: "move", shape: near.vertex[0], place: near.vertex[1], ...base };
    else if (near?.side) doing = { what: "pull", shape: near.side[0], place: near.side[1], ...base };
    else doing = { what: "add", shape: 0, place: 0, ...base };
});

/** The step that the pointer makes. @param {[number, number]} at */
function pointerStep(at) {
    if (doing?.what === "move") return { move: { shape: doing.shape, vertex: doing.place, to: at } };
    if (doing?.what === "pull") return { insert: { shape: doing.shape, side: doing.place, at, kind: "soft" } };
    return null;
}

stage.addEventListener("pointermove", (event) => {
    const before = last;
    last = event;
    const at = picture.placeOf(event);
    part("position", HTMLOutputElement).value = `${short(at[0], 1)}, ${short(at[1], 1)}`;
    if (doing === null) {
        look();
        draw();
        return;
    }
    doing.moved ||= Math.hypot(event.clientX - doing.x, event.clientY - doing.y) >= stillOf(event);
    if (!doing.moved) return;
    if (doing.what === "pan" || doing.what === "add") {
        if (before !== undefined) picture.panBy(event.clientX - before.clientX, event.clientY - before.clientY);
        return;
    }
    const what = pointerStep(at);
    if (what !== null) attempt(what);
});

stage.addEventListener("pointerup", (event) => {
    const done = doing;
    const at = picture.placeOf(event);
    const what = pointerStep(at);
    doing = null;
    tried = null;
    tryNext = null;
    if (done === null) return;
    if (done.moved) {
        if (what !== null) step(what);
    } else if (done.what === "move") {
        const own = active();
        if (own !== undefined && own.id === done.shape && done.place === 0 && own.vertices.length > 2 && !own.closed) {
            finish(true);
        } else {
            chosen = [done.shape, done.place];
            if (draft.active !== done.shape && active() === undefined) step({ pick: { shape: done.shape } });
            list();
        }
    } else if (done.what === "pull" && event.shiftKey) {
        step({ insert: { shape: done.shape, side: done.place, at, kind: kind() } });
    } else if (done.what === "pull" && draft.active !== null && draft.active !== done.shape) {
        step({ add: { at, kind: kind() } });
    } else if (done.what === "pull") {
        step({ pick: { shape: done.shape } });
    } else if (done.what === "add") {
        if (event.altKey && near?.shape) step({ pick: { shape: near.shape } });
        else add(at);
    }
    draw();
});
stage.addEventListener("pointercancel", () => { doing = null; tried = null; draw(); });
stage.addEventListener("pointerleave", () => {
    if (doing !== null) return;
    last = undefined;
    near = null;
    draw();
});

/** @param {[number, number]} at */
function add(at) {
    chosen = null;
    // A closed shape that was picked gets no vertices at its end: a new one begins. A hole is closed while it is drawn.
    const own = active();
    if (own !== undefined && own.closed && own.hole_of === null) step({ finish: { closed: true } });
    step({ add: { at, kind: kind() } });
}

/** @param {1 | -1} by */
function cycle(by) {
    const { shapes } = draft;
    if (shapes.length === 0) return;
    const at = shapes.findIndex((one) => one.id === draft.active);
    const next = shapes[(at + by + shapes.length) % shapes.length];
    if (next !== undefined) step({ pick: { shape: next.id } });
}

stage.addEventListener("keydown", pressedKey);
// These work wherever the focus is.
addEventListener("keydown", (event) => {
    if (event.defaultPrevented) return;
    const pressesButton = event.key === "Enter" && event.target instanceof HTMLElement && event.target.matches("button:focus-visible, summary:focus-visible");
    const goes = (event.ctrlKey || event.metaKey) && ["z", "Z", "y"].includes(event.key);
    if (goes || (["Enter", "Backspace", "Delete"].includes(event.key) && !pressesButton && !isTyping(event))) pressedKey(event);
});

/** @param {KeyboardEvent} event */
function pressedKey(event) {
    if (event.ctrlKey || event.metaKey) {
        if (!["z", "Z", "y"].includes(event.key)) return;
        event.preventDefault();
        wire.send({ ask: event.key === "z" && !event.shiftKey ? "undo" : "redo" });
        return;
    }
    const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    /** @type {Record<string, [number, number]>} */
    const steps = { ArrowLeft: [-size, 0], ArrowRight: [size, 0], ArrowUp: [0, -size], ArrowDown: [0, size] };
    const by = steps[event.key];
    if (by !== undefined) {
        event.preventDefault();
        const own = chosen === null ? undefined : vertexOf(chosen);
        if (own !== undefined && chosen !== null) {
            // From where the last press wants it, which may not have been heard of yet.
            const from = pressed !== null && String(pressed.of) === String(chosen) ? pressed.to : own.at;
            const to = /** @type {[number, number]} */ ([from[0] + by[0], from[1] + by[1]]);
            // Presses with short pauses are taken back together.
            const now = performance.now();
            const more = pressed !== null && String(pressed.of) === String(chosen) && now - pressed.when < ONE_BURST;
            pressed = { of: chosen, to, when: now };
            wire.send({ ask: "step", step: { move: { shape: chosen[0], vertex: chosen[1], to } }, snap: { within: 0, grid: null, edges: false }, more });
        } else {
            crossShown = true;
            cross = [cross[0] + by[0], cross[1] + by[1]];
            part("position", HTMLOutputElement).value = `${short(cross[0], 1)}, ${short(cross[1], 1)}`;
            draw();
        }
        return;
    }
    /** @type {Record<string, () => void>} */
    const keys = {
        a: () => add(crossShown || last === undefined ? cross : picture.placeOf(last)),
        Enter: () => finish(!event.shiftKey),
        z: () => wire.send({ ask: "undo" }), y: () => wire.send({ ask: "redo" }),
        c: () => setKind("corner"), s: () => setKind("soft"), r: () => setKind("rounded"),
        h: () => hole(), x: () => button("delete").click(),
        n: () => cycle(1), p: () => cycle(-1), e: () => input("snap-edges").click(), g: () => input("snap-grid").click(),
        v: () => {
            const own = active() ?? draft.shapes.at(-1);
            if (own !== undefined) chosen = [own.id, chosen !== null && chosen[0] === own.id ? (chosen[1] + 1) % own.vertices.length : 0];
            say(draft);
            list();
            draw();
        },
        Delete: remove, Backspace: remove,
        Escape: () => { chosen = null; crossShown = false; doing = null; tried = null; list(); draw(); },
        "+": () => picture.zoomBy(1.25), "=": () => picture.zoomBy(1.25), "-": () => picture.zoomBy(0.8),
        0: () => picture.fit(), 1: () => picture.trueSize(), d: () => picture.surround(),
    };
    const act = keys[event.key];
    if (act === undefined) return;
    event.preventDefault();
    act();
}

button("undo").addEventListener("click", () => wire.send({ ask: "undo" }));
button("redo").addEventListener("click", () => wire.send({ ask: "redo" }));
button("close-shape").addEventListener("click", () => finish(true));
button("end-open").addEventListener("click", () => finish(false));
button("remove").addEventListener("click", () => remove());
/** Begins a hole in the shape in hand; without one, the shape that was just closed becomes a hole. */
function hole() {
    const shape = shapeInHand();
    const last = draft.shapes.at(-1);
    if (shape !== null) step({ hole: { shape: draft.shapes.find((one) => one.id === shape)?.hole_of ?? shape } });
    else if (last !== undefined) step({ "make-hole": { shape: last.id } });
    else toast("There is no shape yet: click to begin one.");
}
button("hole").addEventListener("click", hole);
button("delete").addEventListener("click", () => {
    const shape = shapeInHand();
    chosen = null;
    if (shape !== null) step({ delete: { shape } });
});
for (const one of document.querySelectorAll("button[data-kind]")) {
    one.addEventListener("click", () => setKind(one.getAttribute("data-kind") ?? "corner"));
}
input("radius").addEventListener("change", () => kindName === "rounded" && setKind("rounded"));
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

list();
wire.open();
