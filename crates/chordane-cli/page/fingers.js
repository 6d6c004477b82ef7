// Two fingers on the picture: they move and zoom it.

export class Fingers {
    /**
     * @param {import("./picture.js").Picture} picture
     * @param {() => void} onBegin What the first finger began is called off.
     */
    constructor(picture, onBegin) {
        this.picture = picture;
        /** Where each finger is. @type {Map<number, [number, number]>} */
        this.down = new Map();
        this.active = false;
        const { stage } = picture;
        stage.addEventListener("pointerdown", (event) => {
            if (event.pointerType !== "touch") return;
            this.down.set(event.pointerId, [event.clientX, event.clientY]);
            if (this.down.size === 2) {
                this.active = true;
                onBegin();
            }
            if (this.active) event.stopImmediatePropagation();
        }, true);
        stage.addEventListener("pointermove", (event) => {
            if (!this.active) return;
            event.stopImmediatePropagation();
            if (this.down.has(event.pointerId)) this.move(event);
        }, true);
        for (const end of /** @type {const} */ (["pointerup", "pointercancel"])) {
            stage.addEventListener(end, (event) => {
                this.down.delete(event.pointerId);
                if (!this.active) return;
                event.stopImmediatePropagation();
                // The finger that stays begins nothing new.
                this.active = this.down.size > 0;
            }, true);
        }
    }

    /** The middle of the first two fingers, and how far they are apart. */
    get spread() {
        const [a = [0, 0], b = a] = [...this.down.values()];
        return { x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, apart: Math.hypot(a[0] - b[0], a[1] - b[1]) };
    }

    /** @param {PointerEvent} event */
    move(event) {
        const before = this.spread;
        this.down.set(event.pointerId, [event.clientX, event.clientY]);
        if (this.down.size < 2) return;
        const now = this.spread;
        const box = this.picture.stage.getBoundingClientRect();
        this.picture.panBy(now.x - before.x, now.y - before.y);
        if (before.apart > 0 && now.apart > 0) this.picture.zoomBy(now.apart / before.apart, now.x - box.left, now.y - box.top);
    }
}
