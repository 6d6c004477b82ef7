// The pointer over the picture: looking, taking hold, dragging, measuring, panning.

import { Asker } from "./asker.js";
import { Fingers } from "./fingers.js";
import { announce, html, isOnControl, reachOf, short, toast } from "./parts.js";
import { Press } from "./press.js";
import { Readout } from "./readout.js";

/** So long, in milliseconds, the program may look for what a place depends on before that is said. */
const SOON = 200;
/** After so long, in milliseconds, a click is not the first of two. */
const ONE_CLICK = 300;
/** The lines of the grid that Shift snaps to are at least so many pixels apart. */
const MIN_GRID = 8;

/** @typedef {{grip: number, hold: number, at: [number, number], what: string, numbers: [number, number][], moved: [number, number][], moved_count: number, way: number, ways: number}} Grip */

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
        this.readout = new Readout(picture);
        this.way = 0;
        /** A press is undecided until it is known what lies there and the pointer moves. @type {"none" | "press" | "pan" | "grab" | "knob"} */
        this.doing = "none";
        this.knob = "";
        /** The press that goes on, or the last one. @type {Press | null} */
        this.began = null;
        /** @type {PointerEvent | undefined} */
        this.last = undefined;
        /** Asks what lies under the pointer. */
        this.looks = new Asker(wire);
        /** What was pressed, once it is known: `null` where nothing can be moved. @type {any} */
        this.pressed = undefined;
        /** How many presses are not answered yet: answers to all but the last are late. */
        this.presses = 0;
        /** Whether the press was let go before it was answered, without having moved. */
        this.tapped = false;
        /** From the pointer to the place that was pressed with a finger. */
        this.aside = [0, 0];
        /** Asks for the steps of a drag. */
        this.steps = new Asker(wire);
        /** Where the pointer wants what is dragged. @type {[number, number] | null} */
        this.wanted = null;
        /** What is chosen, as it was told when it was. @type {Grip | null} */
        this.chosenGrip = null;
        /** Where arrow keys want the chosen place. @type {[number, number] | null} */
        this.target = null;
        /** Asks for the steps of arrow keys. */
        this.nudges = new Asker(wire);
        this.points = false;
        this.isDown = false;
        /** Whether the pointer is over the picture. */
        this.isOver = false;
        /** A mark was clicked; whether a click there is one of a mark. @type {(number: number) => void} */
        this.onMark = () => {};
        /** The mark at a place of the window, if one is there. @type {(event: PointerEvent) => number | null} */
        this.markAt = () => null;
        this.hasMarks = () => false;
        /** @type {ReturnType<typeof setTimeout> | undefined} */
        this.copies = undefined;
        const { stage } = picture;
        new Fingers(picture, () => this.letGo(false));
        stage.addEventListener("pointerdown", (event) => this.down(event));
        stage.addEventListener("pointermove", (event) => this.move(event));
        stage.addEventListener("pointerup", (event) => this.up(event));
        stage.addEventListener("pointercancel", () => this.letGo(true));
        stage.addEventListener("pointerenter", () => { this.isOver = true; });
        stage.addEventListener("pointerleave", () => this.leave());
        wire.on("hovered", (told) => this.hovered(told));
        wire.on("grabbed", (told) => this.grabbed(told));
        wire.on("held", (told) => this.held(told));
        wire.on("hello", () => {
            this.presses = 0;
            this.target = null;
        });
    }

    get reach() {
        return reachOf(this.last) * this.picture.pixel;
    }

    /** @param {PointerEvent} event */
    down(event) {
        if (isOnControl(event)) return;
        this.picture.stage.focus({ preventScroll: true });
        this.began = new Press(event);
        this.last = event;
        this.picture.stage.setPointerCapture(event.pointerId);
        const mark = this.markAt(event);
        if (mark !== null) {
            this.onMark(mark);
            return;
        }
        const knob = event.target instanceof Element ? event.target.getAttribute("data-knob") : null;
        this.wanted = null;
        this.steps.forget();
        const handle = this.overlay.handles.find((one) => one.name === knob);
        if (handle !== undefined && !handle.moves) {
            [this.doing, this.knob] = ["knob", handle.name];
        } else if (event.button === 0 && this.press(event, handle)) {
            this.doing = "press";
        } else {
            this.doing = "pan";
        }
        this.isDown = true;
        this.point(event);
    }

    /**
     * Takes hold of what lies there: of what is shown to be there, or of what the program finds.
     * @param {PointerEvent} event
     * @param {{name: string, at: [number, number]} | undefined} handle
     */
    press(event, handle) {
        const { grip } = this.overlay;
        const shown = grip !== null && this.isNear(event);
        if (!shown) this.way = 0;
        const at = handle !== undefined ? handle.at : shown ? grip.at : this.picture.placeOf(event);
        this.pressed = undefined;
        this.tapped = false;
        const knob = handle === undefined ? {} : { knob: handle.name };
        if (!this.wire.send({ ask: "grab", at, reach: this.reach, way: this.way, ...knob })) return false;
        this.presses += 1;
        setTimeout(() => {
            if (this.doing === "press" && this.pressed === undefined) html("under").textContent = "Looking for the numbers that move this point …";
        }, SOON);
        return true;
    }

    /** @param {any} told */
    grabbed(told) {
        this.presses -= 1;
        if (this.presses > 0) return;
        this.pressed = told;
        if (this.doing !== "press") {
            if (this.tapped && this.doing === "none") this.tap();
            return;
        }
        if (!this.canMove) {
            // What was moved meanwhile moves the picture.
            if (this.wanted !== null && this.last !== undefined && this.began !== null) {
                this.picture.panBy(...this.began.from(this.last));
                [this.doing, this.wanted] = ["pan", null];
            }
            return;
        }
        this.overlay.grip = told.grip;
        this.text.showNumbers(told.grip.numbers);
        const [x, y] = this.picture.onStage(told.grip.at);
        const box = this.picture.stage.getBoundingClientRect();
        const begun = this.began?.begun;
        this.aside = begun?.pointerType === "touch" ? [x - begun.clientX + box.left, y - begun.clientY + box.top] : [0, 0];
        this.overlay.draw();
        if (this.wanted !== null && this.last !== undefined) this.beginDrag(this.last);
    }

    get canMove() {
        return this.pressed !== undefined && this.pressed.grip !== null && this.pressed.grip.numbers.length > 0;
    }

    /** @param {PointerEvent} event */
    beginDrag(event) {
        this.doing = "grab";
        this.overlay.item = null;
        this.dragTo(event);
    }

    /** @param {PointerEvent} event */
    isNear(event) {
        const [x, y] = this.picture.onStage(this.overlay.grip.at);
        const box = this.picture.stage.getBoundingClientRect();
        return Math.hypot(event.clientX - box.left - x, event.clientY - box.top - y) <= reachOf(event) + 2;
    }

    /** @param {PointerEvent} event */
    move(event) {
        this.last = event;
        const by = this.began?.follow(event);
        const at = this.picture.placeOf(event);
        this.readout.position(at, this.overlay.from);
        this.point(event);
        if (this.doing === "press") {
            if (this.began === null || (this.began.isStill(event) && this.wanted === null)) return;
            if (this.canMove) this.beginDrag(event);
            else if (this.pressed === undefined) this.wanted = at;
            else {
                this.doing = "pan";
                this.picture.panBy(...this.began.from(event));
            }
        } else if (this.doing === "grab") {
            this.dragTo(event);
        } else if (this.doing === "knob") {
            this.wire.send({ ask: "knob", name: this.knob, value: this.knobText(at), more: true });
        } else if (this.doing === "pan" && by !== undefined) {
            this.picture.panBy(...by);
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
     * Where the pointer wants what is dragged: with Shift on the nearest crossing of a grid, whose lines are far enough apart to be aimed at.
     * @param {PointerEvent} event
     * @returns {[number, number]}
     */
    wantedBy(event) {
        const [right = 0, down = 0] = this.aside;
        const at = this.picture.placeOf({ clientX: event.clientX + right, clientY: event.clientY + down });
        if (!event.shiftKey) return at;
        const step = this.grid;
        return [Math.round(at[0] / step) * step, Math.round(at[1] / step) * step];
    }

    /** How far the lines of the grid are apart: 1, 2 or 5 times a power of ten. */
    get grid() {
        const least = MIN_GRID * this.picture.pixel;
        const power = 10 ** Math.floor(Math.log10(least));
        return power * ([1, 2, 5].find((times) => times * power >= least) ?? 10);
    }

    /**
     * One step of a drag at a time: what comes meanwhile waits, and only the last of it is sent.
     * @param {PointerEvent} event
     */
    dragTo(event) {
        this.wanted = this.wantedBy(event);
        this.steps.ask(() => this.stepTo(this.wanted));
    }

    /** @param {[number, number] | null} to */
    stepTo(to) {
        return to === null ? null : { ask: "drag", to, within: this.picture.pixel * 0.5 };
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
            this.wire.send({ ask: "drag", to: this.wantedBy(event), within: this.picture.pixel * 0.5 });
            this.letGo(true);
            this.overlay.chosen = null;
            return;
        }
        const moved = this.wanted !== null || doing === "pan";
        this.letGo(true);
        if (doing !== "press" || moved) return;
        this.tapped = this.pressed === undefined;
        if (!this.tapped) this.tap();
    }

    /** @param {boolean} keep */
    letGo(keep) {
        if (this.doing === "grab" || this.doing === "press") this.wire.send({ ask: "let-go", keep });
        this.doing = "none";
        this.wanted = null;
        this.steps.forget();
    }

    /** What was pressed was let go where it is: it is chosen, and its line shown. */
    tap() {
        this.tapped = false;
        const { grip, item } = this.pressed;
        this.overlay.item = item;
        const line = item?.line;
        if (typeof line === "number") this.text.toLine(line);
        if (grip !== null) {
            this.choose(grip);
            return;
        }
        this.overlay.chosen = null;
        this.chosenGrip = null;
        if (this.hasMarks()) {
            // A mark was missed.
            this.overlay.draw();
            return;
        }
        if (this.began === null) return;
        const at = this.picture.placeOf(this.began.begun);
        this.overlay.from = at;
        const copied = this.readout.text(at);
        clearTimeout(this.copies);
        // Not of a double click, which means something else.
        this.copies = setTimeout(() => void navigator.clipboard?.writeText(copied).then(() => toast(`${copied} copied`), () => {}), ONE_CLICK);
        this.overlay.draw();
    }

    /** @param {Grip} grip */
    choose(grip) {
        this.target = null;
        this.chosenGrip = grip;
        this.overlay.chosen = grip.at;
        this.overlay.grip = grip;
        this.way = grip.way;
        this.text.showNumbers(grip.numbers);
        this.readout.under(this.overlay.item, this.overlay.grip);
        const { item } = this.overlay;
        const of = item === null ? "" : ` of ${item.name ?? `item ${item.number}`}`;
        const next = grip.numbers.length === 0 ? "No number moves it." : "Arrow keys move it.";
        announce(`${grip.what}${of}, at ${this.readout.text(grip.at)}. ${next}`);
        this.overlay.draw();
    }

    leave() {
        this.isOver = false;
        if (this.doing !== "none") return;
        this.overlay.item = null;
        if (this.overlay.chosen === null) {
            this.overlay.grip = null;
            this.text.showNumbers([]);
            html("under").textContent = "";
        }
        this.readout.clear();
        this.overlay.draw();
    }

    /** Asks what lies there, one question at a time. */
    look() {
        this.looks.ask(() => {
            if (this.last === undefined || this.doing !== "none") return null;
            return { ask: "hover", at: this.picture.placeOf(this.last), reach: this.reach, way: this.way };
        });
    }

    /** @param {any} told */
    hovered(told) {
        if (told.chosen === true) {
            this.overlay.item = told.item;
            if (told.grip !== null) this.choose(told.grip);
            this.onChosen();
            return;
        }
        if (this.doing === "none") {
            const before = this.overlay.grip;
            this.overlay.item = told.item;
            this.overlay.grip = told.grip;
            // Another place is held in its own first way.
            const isOther = told.grip === null || before === null || String(before.at) !== String(told.grip.at);
            if (isOther && this.way !== 0) {
                this.way = 0;
                if (told.grip !== null) this.look();
            }
            this.picture.stage.style.cursor = told.grip !== null && told.grip.numbers.length > 0 ? "move" : "crosshair";
            this.text.showNumbers(told.grip?.numbers ?? []);
            this.readout.under(this.overlay.item, this.overlay.grip);
            this.overlay.draw();
        }
        this.looks.answered();
    }

    /** What was asked for by a key is chosen now. */
    onChosen() {}

    /** @param {any} told */
    held(told) {
        html("under").textContent = told.told ?? "";
        this.picture.stage.dataset.held = told.told ?? "";
        if (told.numbers.length > 0) this.text.showNumbers(told.numbers);
        if (told.at !== null) {
            if (this.doing === "grab" && this.overlay.grip !== null) {
                this.overlay.grip = { ...this.overlay.grip, at: told.at, moved: [] };
            } else if (this.overlay.chosen !== null) {
                this.overlay.chosen = told.at;
                this.overlay.grip = null;
            }
            this.overlay.draw();
        }
        if (this.nudges.open) {
            // The next press starts from the place that was reached.
            if (told.at === null || told.told !== null) {
                this.target = null;
                this.nudges.forget();
            }
            this.nudges.answered();
            announce(told.told ?? this.readout.text(told.at));
        }
        this.steps.answered();
    }

    /**
     * The pointer as an input of the score.
     * @param {PointerEvent} event
     */
    point(event) {
        if (this.points) this.wire.send({ ask: "pointer", at: this.picture.placeOf(event), down: this.isDown });
    }

    /**
     * Moves the chosen place on from where the last press wants it. One question at a time: presses meanwhile are asked for together.
     * @param {[number, number] | [0, 0]} by
     */
    nudge(by) {
        const from = this.target ?? this.overlay.chosen;
        if (from === null) return;
        this.target = [from[0] + by[0], from[1] + by[1]];
        this.nudges.ask(() => {
            const { chosen } = this.overlay;
            if (chosen === null || this.chosenGrip === null) return null;
            const { grip, hold } = this.chosenGrip;
            return { ask: "nudge", grip, hold, at: chosen, reach: this.reach, to: this.target };
        });
    }

    /** Says something below the picture and to those who listen. @param {string} text */
    say(text) {
        html("under").textContent = text;
        announce(text);
    }

    /** The chosen place may be another one now. */
    forget() {
        this.target = null;
        this.chosenGrip = null;
        [this.overlay.chosen, this.overlay.grip, this.way] = [null, null, 0];
        this.overlay.draw();
    }

    /** Another way to hold what the pointer is at, or else what is chosen. */
    otherWay() {
        const { chosen, grip } = this.overlay;
        const hovered = grip !== null && this.isOver && this.last !== undefined && this.isNear(this.last);
        const own = hovered ? grip : this.chosenGrip;
        if (own === null || (!hovered && chosen === null)) {
            toast("Point at a point of a shape, or choose one: w then changes how it is held.");
        } else if (own.ways < 2) {
            toast(`There is one way to hold this: ${own.what}.`);
        } else if (hovered) {
            this.way = (own.way + 1) % own.ways;
            this.look();
        } else {
            this.wire.send({ ask: "next", from: own.grip, reach: this.reach, way: (own.way + 1) % own.ways, by: 0, items: false });
        }
    }
}
