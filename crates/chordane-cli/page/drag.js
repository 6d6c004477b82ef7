// The pointer and the keys over the picture: looking, taking hold, dragging, moving by steps, measuring, panning.

import { html, isOnControl, part, short, toast } from "./parts.js";

/** So near in pixels the pointer takes hold of a place. */
const REACH = 9;
/** What moves less than this between down and up is a click. */
const STILL = 3;

export class Drag {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./picture.js").Picture} picture
     * @param {import("./overlay.js").Overlay} overlay
     * @param {{toLine: (line: number) => void, showNumbers: (numbers: [number, number][]) => void}} text
     */
    constructor(wire, picture, overlay, text) {
        this.wire = wire;
        this.picture = picture;
        this.overlay = overlay;
        this.text = text;
        this.way = 0;
        /** @type {"none" | "pan" | "grab" | "knob"} */
        this.doing = "none";
        this.knob = "";
        this.begun = [0, 0];
        /** @type {PointerEvent | undefined} */
        this.last = undefined;
        this.hovering = false;
        this.asked = false;
        /** Steps of a drag that were not answered yet. */
        this.waiting = 0;
        /** @type {[number, number] | null} */
        this.wanted = null;
        /** The line of the item whose place was pressed. @type {number | null | undefined} */
        this.pressedLine = undefined;
        /** Steps from vertex to vertex that were not asked for yet, and whether some were and are not answered. */
        this.steps = 0;
        this.stepping = false;
        /** Where arrow keys want the chosen place, and whether the program was asked for that and has not answered yet. @type {[number, number] | null} */
        this.target = null;
        this.nudging = false;
        this.points = false;
        this.isDown = false;
        /** @type {(number: number) => void} */
        this.onMark = () => {};
        const { stage } = picture;
        stage.addEventListener("pointerdown", (event) => this.down(event));
        stage.addEventListener("pointermove", (event) => this.move(event));
        stage.addEventListener("pointerup", (event) => this.up(event));
        stage.addEventListener("pointercancel", () => this.letGo(true));
        stage.addEventListener("pointerleave", () => this.leave());
        stage.addEventListener("keydown", (event) => this.key(event));
        stage.addEventListener("dblclick", (event) => {
            this.wire.send({ ask: "insert", at: this.picture.placeOf(event), reach: REACH * this.picture.pixel });
        });
        wire.on("hovered", (told) => this.hovered(told));
        wire.on("held", (told) => this.held(told));
        wire.on("hello", () => {
            this.nudging = false;
            this.target = null;
        });
    }

    get reach() {
        return REACH * this.picture.pixel;
    }

    /** @param {PointerEvent} event */
    down(event) {
        if (isOnControl(event)) return;
        this.picture.stage.focus({ preventScroll: true });
        this.begun = [event.clientX, event.clientY];
        this.last = event;
        this.picture.stage.setPointerCapture(event.pointerId);
        const mark = event.target instanceof Element ? event.target.getAttribute("data-mark") : null;
        if (mark !== null) {
            this.onMark(Number(mark));
            return;
        }
        const knob = event.target instanceof Element ? event.target.getAttribute("data-knob") : null;
        if (knob !== null) {
            [this.doing, this.knob] = ["knob", knob];
        } else if (event.button === 0 && this.overlay.grip !== null && this.overlay.grip.ways > 0 && this.isNear(event)) {
            this.doing = "grab";
            this.waiting = 0;
            this.wanted = null;
            this.pressedLine = this.overlay.item?.line;
            this.overlay.item = null;
            this.wire.send({ ask: "grab", at: this.overlay.grip.at, reach: this.reach, way: this.way });
        } else {
            this.doing = "pan";
        }
        this.isDown = true;
        this.point(event);
    }

    /** @param {PointerEvent} event */
    isNear(event) {
        const [x, y] = this.picture.onStage(this.overlay.grip.at);
        const box = this.picture.stage.getBoundingClientRect();
        return Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) <= REACH + 2;
    }

    /** @param {PointerEvent} event */
    isStill(event) {
        return Math.hypot(event.clientX - (this.begun[0] ?? 0), event.clientY - (this.begun[1] ?? 0)) < STILL;
    }

    /** @param {PointerEvent} event */
    move(event) {
        const before = this.last;
        this.last = event;
        const at = this.picture.placeOf(event);
        this.tellPosition(at);
        this.point(event);
        if (this.doing === "grab") {
            if (!this.isStill(event) || this.wanted !== null) this.dragTo(at);
        } else if (this.doing === "knob") {
            this.wire.send({ ask: "knob", name: this.knob, value: this.knobText(at), more: true });
        } else if (this.doing === "pan" && before !== undefined && !this.isStill(event)) {
            this.picture.panBy(event.clientX - before.clientX, event.clientY - before.clientY);
        } else if (this.doing === "none") {
            this.look();
        }
    }

    /** @param {[number, number]} at */
    knobText(at) {
        const digits = Math.max(0, Math.ceil(-Math.log10(this.picture.pixel)));
        return `${short(at[0], digits)},${short(at[1], digits)}`;
    }

    /**
     * Where the place that is dragged is wanted. One step at a time: what comes meanwhile waits, and only the last of it is sent.
     * @param {[number, number]} at
     */
    dragTo(at) {
        this.wanted = at;
        if (this.waiting > 0) return;
        this.waiting += 1;
        this.wire.send({ ask: "drag", to: at, within: this.picture.pixel * 0.5 });
        this.sent = at;
    }

    /** @param {PointerEvent} event */
    up(event) {
        const doing = this.doing;
        this.isDown = false;
        this.point(event);
        if (doing === "knob") {
            const at = this.picture.placeOf(event);
            this.wire.send({ ask: "knob", name: this.knob, value: this.knobText(at), more: false });
        }
        if (doing === "grab") {
            if (this.wanted === null) {
                this.letGo(true);
                if (typeof this.pressedLine === "number") this.text.toLine(this.pressedLine);
                this.choose(this.overlay.grip);
                return;
            }
            const at = this.picture.placeOf(event);
            this.wire.send({ ask: "drag", to: at, within: this.picture.pixel * 0.5 });
            this.letGo(true);
            this.overlay.chosen = null;
            return;
        }
        this.doing = "none";
        if (doing === "pan" && this.isStill(event)) this.click(event);
    }

    /** @param {boolean} keep */
    letGo(keep) {
        if (this.doing === "grab") this.wire.send({ ask: "let-go", keep });
        this.doing = "none";
        this.wanted = null;
        this.waiting = 0;
    }

    /** @param {PointerEvent} event */
    click(event) {
        const at = this.picture.placeOf(event);
        this.overlay.from = at;
        if (this.overlay.grip !== null && this.isNear(event)) this.choose(this.overlay.grip);
        else this.overlay.chosen = null;
        const line = this.overlay.item?.line;
        if (typeof line === "number") this.text.toLine(line);
        const copied = this.positionText(at);
        navigator.clipboard?.writeText(copied).then(() => toast(`${copied} copied`), () => {});
        this.overlay.draw();
    }

    /** @param {any} grip */
    choose(grip) {
        this.target = null;
        this.overlay.chosen = grip.at;
        this.text.showNumbers(grip.numbers);
        this.overlay.draw();
    }

    leave() {
        if (this.doing !== "none") return;
        this.overlay.item = null;
        this.overlay.grip = null;
        part("position", HTMLOutputElement).value = "–";
        html("own").textContent = "";
        html("measured").textContent = "";
        html("under").textContent = "";
        this.text.showNumbers([]);
        this.overlay.draw();
    }

    /** Asks what lies there, one question at a time. */
    look() {
        if (this.hovering || this.last === undefined || this.doing !== "none") {
            this.asked = true;
            return;
        }
        this.asked = false;
        this.hovering = this.wire.send({
            ask: "hover", at: this.picture.placeOf(this.last), reach: this.reach, way: this.way,
        });
    }

    /** @param {any} told */
    hovered(told) {
        this.hovering = false;
        if (this.doing === "none") {
            const before = this.overlay.grip;
            this.overlay.item = told.item;
            this.overlay.grip = told.grip;
            if (told.grip === null || before === null || String(before.at) !== String(told.grip.at)) {
                if (before !== null && this.way !== 0) this.way = 0;
            }
            this.picture.stage.style.cursor = told.grip !== null && told.grip.ways > 0 ? "move" : "crosshair";
            this.text.showNumbers(told.grip?.numbers ?? []);
            this.tellUnder();
            this.overlay.draw();
        }
        if (told.chosen === true) {
            this.stepping = false;
            if (told.grip !== null) this.choose(told.grip);
            if (this.steps !== 0) this.next(0);
        }
        if (this.asked) this.look();
    }

    tellUnder() {
        const { item, grip } = this.overlay;
        /** @type {string[]} */
        const parts = [];
        if (grip !== null) {
            if (grip.ways === 0) {
                parts.push(`${grip.what}: no number of the score moves it`);
            } else {
                const places = grip.moved_count === 1 ? "1 other place" : `${grip.moved_count} other places`;
                const more = grip.moved_count > 0 ? `, with ${places}` : "";
                const ways = grip.ways > 1 ? ` (way ${grip.way + 1} of ${grip.ways}: w)` : "";
                const count = grip.numbers.length === 1 ? "1 number" : `${grip.numbers.length} numbers`;
                parts.push(`${grip.what}: ${count}${more}${ways}`);
            }
        }
        if (item !== null) {
            const name = item.name === null ? `item ${item.number}` : item.name;
            parts.push(`${name}${item.line === null ? "" : `, line ${item.line}`} · ${item.figures}`);
        }
        html("under").textContent = parts.join(" — ");
        html("own").textContent = item === null || item.own === null ? "" : `${short(item.own[0])}, ${short(item.own[1])} on the item itself`;
    }

    /** @param {[number, number]} at */
    positionText(at) {
        const digits = Math.min(4, Math.max(0, Math.ceil(-Math.log10(this.picture.pixel))));
        return `${short(at[0], digits)}, ${short(at[1], digits)}`;
    }

    /** @param {[number, number]} at */
    tellPosition(at) {
        part("position", HTMLOutputElement).value = this.positionText(at);
        const { from } = this.overlay;
        if (from === null) return;
        const [x, y] = [at[0] - from[0], at[1] - from[1]];
        html("measured").textContent = `Δ ${short(Math.hypot(x, y))} at ${short((Math.atan2(y, x) * 180) / Math.PI, 1)}°`;
    }

    /** @param {any} told */
    held(told) {
        if (this.waiting > 0) this.waiting -= 1;
        html("under").textContent = told.told ?? "";
        this.picture.stage.dataset.held = told.told ?? "";
        if (told.numbers.length > 0) this.text.showNumbers(told.numbers);
        if (told.at !== null) {
            if (this.doing === "grab" && this.overlay.grip !== null) {
                this.overlay.grip = { ...this.overlay.grip, at: told.at, moved: [] };
            } else if (this.overlay.chosen !== null) {
                this.overlay.chosen = told.at;
            }
            this.overlay.draw();
        }
        if (this.nudging) {
            this.nudging = false;
            // The next press starts from the place that was reached.
            if (told.at === null || told.told !== null) this.target = null;
            else if (this.target !== null && this.target !== this.nudged) this.nudge([0, 0]);
        }
        if (this.doing === "grab" && this.wanted !== null && this.wanted !== this.sent) this.dragTo(this.wanted);
    }

    /**
     * The pointer as an input of the score.
     * @param {PointerEvent} event
     */
    point(event) {
        if (this.points) this.wire.send({ ask: "pointer", at: this.picture.placeOf(event), down: this.isDown });
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        if (event.ctrlKey || event.metaKey) return;
        const { picture, overlay } = this;
        const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
        const up = picture.corners[1][1] > picture.corners[0][1] ? -1 : 1;
        /** @type {Record<string, [number, number]>} */
        const steps = {
            ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step * up], ArrowDown: [0, -step * up],
        };
        const by = steps[event.key];
        if (by !== undefined) {
            event.preventDefault();
            if (overlay.chosen !== null) {
                this.nudge(by);
            } else {
                picture.panBy(-by[0] * 20, by[1] * 20 * up);
            }
            return;
        }
        const at = overlay.chosen ?? overlay.grip?.at ?? null;
        /** @type {Record<string, () => void>} */
        const keys = {
            "+": () => picture.zoomBy(1.25),
            "=": () => picture.zoomBy(1.25),
            "-": () => picture.zoomBy(0.8),
            0: () => picture.fit(),
            1: () => picture.trueSize(),
            d: () => picture.surround(),
            n: () => this.next(1),
            p: () => this.next(-1),
            w: () => this.otherWay(),
            i: () => {
                const place = this.last === undefined ? null : picture.placeOf(this.last);
                if (place !== null) this.wire.send({ ask: "insert", at: place, reach: this.reach });
            },
            Delete: () => at !== null && this.wire.send({ ask: "remove", at, reach: this.reach }),
            Backspace: () => at !== null && this.wire.send({ ask: "remove", at, reach: this.reach }),
            Escape: () => {
                this.letGo(false);
                overlay.chosen = null;
                overlay.from = null;
                html("measured").textContent = "";
                overlay.draw();
            },
            " ": () => document.getElementById("play")?.click(),
        };
        const act = keys[event.key];
        if (act === undefined) return;
        event.preventDefault();
        act();
    }

    /**
     * Moves the chosen place on from where the last press wants it. One question at a time: presses meanwhile are asked for together.
     * @param {[number, number] | [0, 0]} by
     */
    nudge(by) {
        const { chosen } = this.overlay;
        if (chosen === null) return;
        const from = this.target ?? chosen;
        this.target = [from[0] + by[0], from[1] + by[1]];
        if (this.nudging) return;
        this.nudged = this.target;
        this.nudging = this.wire.send({ ask: "nudge", at: chosen, reach: this.reach, way: this.way, to: this.target });
    }

    /** The chosen place may be another one now. */
    forget() {
        this.target = null;
        this.overlay.chosen = null;
        this.overlay.draw();
    }

    otherWay() {
        this.way += 1;
        const at = this.overlay.chosen ?? this.overlay.grip?.at;
        if (at !== undefined) this.wire.send({ ask: "hover", at, reach: this.reach, way: this.way });
    }

    /** @param {1 | -1 | 0} by */
    next(by) {
        this.steps += by;
        if (this.stepping || this.steps === 0) return;
        this.stepping = this.wire.send({ ask: "next", from: this.overlay.chosen, by: this.steps });
        this.steps = 0;
    }
}
