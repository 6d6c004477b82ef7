// What keys mean in both pages.

import { isTyping } from "./parts.js";

/**
 * The step of an arrow key: 1, with Shift 10, with Alt a tenth; y points to where `down` is 1 or -1.
 * @param {KeyboardEvent} event
 * @param {1 | -1} [down]
 * @returns {[number, number] | undefined}
 */
export function arrowOf(event, down = 1) {
    const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    /** @type {Record<string, [number, number]>} */
    const steps = {
        ArrowLeft: [-size, 0], ArrowRight: [size, 0], ArrowUp: [0, -size * down], ArrowDown: [0, size * down],
    };
    return steps[event.key];
}

/**
 * Whether a key that finishes or takes out something works wherever the focus is. A button that was reached by keys is pressed by Enter.
 * @param {KeyboardEvent} event
 */
export function worksAnywhere(event) {
    const pressesButton = event.key === "Enter" && event.target instanceof HTMLElement
        && event.target.matches("button:focus-visible, summary:focus-visible");
    return ["Enter", "Backspace", "Delete"].includes(event.key) && !pressesButton && !isTyping(event);
}

/**
 * The keys that move and zoom the picture.
 * @param {import("./picture.js").Picture} picture
 * @returns {Record<string, () => void>}
 */
export const viewKeys = (picture) => ({
    "+": () => picture.zoomBy(1.25),
    "=": () => picture.zoomBy(1.25),
    "-": () => picture.zoomBy(0.8),
    0: () => picture.fit(),
    1: () => picture.trueSize(),
    d: () => picture.surround(),
});
