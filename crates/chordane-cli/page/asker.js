// Asking the program one question at a time.

/** @typedef {{ask: string} & Record<string, unknown>} Question */

export class Asker {
    /** @param {import("./wire.js").Wire} wire */
    constructor(wire) {
        this.wire = wire;
        /** Whether a question is not answered yet. */
        this.open = false;
        /** @type {(() => Question | null) | null} */
        this.next = null;
        wire.on("hello", () => this.forget());
    }

    /**
     * Asks, or waits until the open question is answered: of those that wait, the last is asked. A question is made when it is
     * sent; `null` asks nothing.
     * @param {() => Question | null} make
     */
    ask(make) {
        if (this.open) {
            this.next = make;
            return;
        }
        const question = make();
        this.open = question !== null && this.wire.send(question);
    }

    /** The open question is answered. */
    answered() {
        this.open = false;
        const { next } = this;
        this.next = null;
        if (next !== null) this.ask(next);
    }

    /** What waits is not asked any more, and nothing is waited for. */
    forget() {
        this.open = false;
        this.next = null;
    }
}
