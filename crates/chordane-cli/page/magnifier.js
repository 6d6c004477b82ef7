// The picture under the pointer, larger.

import { part } from "./parts.js";

/** It shows so much larger. */
const LARGER = 4;

export class Magnifier {
    /**
     * @param {import("./draft.js").Draft} draft
     * @param {() => HTMLImageElement | undefined} photo
     */
    constructor(draft, photo) {
        this.draft = draft;
        this.photo = photo;
        this.glass = part("magnifier", HTMLCanvasElement);
        draft.drawn.push(() => this.draw());
        draft.picture.moved.push(() => this.draw());
    }

    draw() {
        const { glass, draft } = this;
        const { picture } = draft;
        const photo = this.photo();
        const at = draft.crossShown ? draft.cross : draft.last === undefined ? null : picture.placeOf(draft.last);
        glass.hidden = at === null;
        const pen = glass.getContext("2d");
        if (at === null || photo === undefined || !photo.complete || pen === null) return;
        const shownAt = LARGER * Math.max(picture.zoom, 0.5);
        const side = glass.width / shownAt;
        pen.imageSmoothingEnabled = shownAt < 6;
        pen.fillStyle = "#888";
        pen.fillRect(0, 0, glass.width, glass.height);
        pen.drawImage(photo, at[0] - side / 2, at[1] - side / 2, side, side, 0, 0, glass.width, glass.height);
        const middle = glass.width / 2;
        const lines = new Path2D(`M${middle - 14} ${middle}H${middle + 14}M${middle} ${middle - 14}V${middle + 14}`);
        for (const [colour, width] of /** @type {const} */ ([["#fff", 3], ["#111", 1]])) {
            [pen.strokeStyle, pen.lineWidth] = [colour, width];
            pen.stroke(lines);
        }
        // Where the pointer is not.
        const [x, y] = picture.onStage(at);
        glass.style.left = x > picture.stage.clientWidth - 320 && y < 170 ? "10px" : "";
    }
}
