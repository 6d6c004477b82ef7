// One press of the pointer, from down to up: a click where it stays, else a drag.

import { stillOf } from "./parts.js";

export class Press {
    /** @param {PointerEvent} event */
    constructor(event) {
        this.begun = event;
        this.before = event;
        /** Whether the pointer has left the place that was pressed. */
        this.moved = false;
    }

    /**
     * From the place that was pressed, in pixels of the window.
     * @param {PointerEvent} event
     * @returns {[number, number]}
     */
    from(event) {
        return [event.clientX - this.begun.clientX, event.clientY - this.begun.clientY];
    }

    /** @param {PointerEvent} event */
    isStill(event) {
        return Math.hypot(...this.from(event)) < stillOf(event);
    }

    /**
     * Follows the pointer, and gives the step from where it was before.
     * @param {PointerEvent} event
     * @returns {[number, number]}
     */
    follow(event) {
        const { before } = this;
        this.before = event;
        this.moved ||= !this.isStill(event);
        return [event.clientX - before.clientX, event.clientY - before.clientY];
    }
}
