// The line to the program: one socket, opened again where it breaks.

import { access, tellRefused, token } from "./access.js";

/**
 * What the program tells; `tell` says which of its kinds it is.
 * @typedef {{tell: string} & Record<string, any>} Told
 */

/** The longest wait before the line is tried again, in milliseconds. */
const LONGEST = 4000;

export class Wire {
    constructor() {
        /** @type {Map<string, ((told: any) => void)[]>} */
        this.listeners = new Map();
        /** @type {WebSocket | undefined} */
        this.socket = undefined;
        this.wait = 200;
        this.refused = false;
        /** @type {ReturnType<typeof setTimeout> | undefined} */
        this.timer = undefined;
        /** @type {(state: "open" | "closed" | "refused") => void} */
        this.onState = () => {};
        // A machine that wakes up again need not wait.
        addEventListener("online", () => this.again());
        addEventListener("offline", () => this.socket?.close());
        document.addEventListener("visibilitychange", () => this.again());
    }

    /** Opens the line at once where it is closed. */
    again() {
        if (this.socket?.readyState !== WebSocket.CLOSED || !navigator.onLine) return;
        clearTimeout(this.timer);
        this.open();
    }

    /**
     * Calls a function for each message of a kind.
     * @param {string} kind
     * @param {(told: any) => void} act
     */
    on(kind, act) {
        const all = this.listeners.get(kind) ?? [];
        all.push(act);
        this.listeners.set(kind, all);
    }

    open() {
        const socket = new WebSocket(`ws://${location.host}/socket?token=${encodeURIComponent(token)}`);
        this.socket = socket;
        let opened = false;
        socket.addEventListener("open", () => {
            opened = true;
            this.wait = 200;
            this.onState("open");
        });
        socket.addEventListener("message", (event) => {
            /** @type {Told} */
            const told = JSON.parse(event.data);
            for (const act of this.listeners.get(told.tell) ?? []) act(told);
        });
        socket.addEventListener("close", () => {
            if (opened) this.refused = false;
            this.onState(this.refused ? "refused" : "closed");
            if (!opened) void this.ask();
            this.timer = setTimeout(() => this.open(), this.wait);
            this.wait = Math.min(this.wait * 1.6, LONGEST);
        });
    }

    /** Asks why the line was not opened. */
    async ask() {
        this.refused = await access() === "refused";
        if (!this.refused) return;
        tellRefused();
        this.onState("refused");
    }

    /** Whether what is sent now arrives. */
    get isOpen() {
        return this.socket?.readyState === WebSocket.OPEN;
    }

    /**
     * Sends what is asked for; whether it could be.
     * @param {{ask: string} & Record<string, any>} asked
     */
    send(asked) {
        if (!this.isOpen) return false;
        this.socket?.send(JSON.stringify(asked));
        return true;
    }
}
