// Time: play, pause, scrub, step, speed and the length of the loop; and the pointer, recorded and replayed.

import { button, html, input, part, short } from "./parts.js";

/** Frames to the second by which steps go. */
const FRAMES = 25;

export class Time {
    /**
     * @param {import("./wire.js").Wire} wire
     * @param {import("./drag.js").Drag} drag
     */
    constructor(wire, drag) {
        this.wire = wire;
        this.drag = drag;
        this.phase = 0;
        this.seconds = 4;
        this.mode = "plain";
        this.playing = false;
        /** A moment that was asked for and has not come yet. */
        this.asked = false;
        this.before = 0;
        this.scrubbing = false;
        wire.on("time", (told) => this.told(told));
        wire.on("run", (told) => {
            html("time").hidden = !told.moves && this.mode !== "replaying";
            html("pointer").hidden = !told.points;
            drag.points = told.points;
            if (html("time").hidden && this.playing) this.play(false);
        });
        button("play").addEventListener("click", () => this.play(!this.playing));
        button("step").addEventListener("click", () => this.to(this.phase + 1 / (FRAMES * this.seconds)));
        button("back-step").addEventListener("click", () => this.to(this.phase - 1 / (FRAMES * this.seconds)));
        const slider = input("phase");
        slider.addEventListener("input", () => {
            this.play(false);
            this.to(Number(slider.value) % 1);
        });
        input("seconds").addEventListener("change", () => wire.send({ ask: "seconds", seconds: Number(input("seconds").value) }));
        button("record").addEventListener("click", () => wire.send(this.mode === "recording" ? { ask: "replay", on: false } : { ask: "record" }));
        button("replay").addEventListener("click", () => wire.send({ ask: "replay", on: this.mode !== "replaying" }));
    }

    /** @param {any} told */
    told(told) {
        const before = this.mode;
        this.asked = false;
        this.seconds = told.seconds;
        this.mode = told.mode;
        if (!this.playing) this.phase = told.phase;
        input("phase").value = String(told.phase);
        part("phase-told", HTMLOutputElement).value = `${short(told.phase, 3)} · ${short(told.phase * told.seconds, 2)} s`;
        if (document.activeElement !== input("seconds")) input("seconds").value = short(told.seconds, 2);
        button("record").setAttribute("aria-pressed", String(told.mode === "recording"));
        button("record").textContent = told.mode === "recording" ? "End recording" : "Record";
        button("replay").setAttribute("aria-pressed", String(told.mode === "replaying"));
        button("replay").textContent = told.mode === "replaying" ? "End replay" : "Replay";
        button("replay").disabled = told.recorded <= 0 || told.mode === "recording";
        part("recorded", HTMLOutputElement).value = told.recorded > 0 ? `${short(told.recorded, 1)} s` : "";
        if (told.mode !== before && told.mode === "replaying") this.play(true);
        if (told.mode !== before && before === "replaying") this.play(false);
    }

    /** @param {number} phase */
    to(phase) {
        this.phase = ((phase % 1) + 1) % 1;
        this.asked = this.wire.send({ ask: "phase", phase: this.phase });
    }

    /** @param {boolean} on */
    play(on) {
        if (on === this.playing) return;
        this.playing = on;
        button("play").setAttribute("aria-pressed", String(on));
        button("play").textContent = on ? "Pause" : "Play";
        this.before = performance.now();
        this.asked = false;
        if (on) requestAnimationFrame((now) => this.frame(now));
    }

    /** @param {number} now */
    frame(now) {
        if (!this.playing) return;
        const speed = Number(part("speed", HTMLSelectElement).value);
        this.phase = (((this.phase + ((now - this.before) / 1000 / this.seconds) * speed) % 1) + 1) % 1;
        this.before = now;
        // A moment that has not come yet is waited for: late ones are left out.
        if (!this.asked) this.asked = this.wire.send({ ask: "phase", phase: this.phase });
        requestAnimationFrame((next) => this.frame(next));
    }
}
