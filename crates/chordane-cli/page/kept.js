// Unsent text in the browser's storage, keyed by the file's path, so that it can be offered to a program that is started again.

/** @typedef {{before: string, text: string}} Typed */

/** A name of this tab, the same after a reload. */
function tab() {
    const known = sessionStorage.getItem("chordane:tab");
    if (known !== null) return known;
    const made = String(Math.random()).slice(2);
    sessionStorage.setItem("chordane:tab", made);
    return made;
}

export class Kept {
    constructor() {
        this.path = "";
    }

    /** The file that is shown. @param {string} path */
    of(path) {
        this.path = path;
    }

    get own() {
        return `chordane:unsent:${this.path}:${tab()}`;
    }

    get offered() {
        return `chordane:kept:${this.path}`;
    }

    /**
     * Stores the text of this tab and the program's text; removes the entry where they are equal.
     * Returns whether the text is safe outside of this tab.
     * @param {string} before
     * @param {string} text
     */
    unsent(before, text) {
        if (this.path === "") return true;
        try {
            if (text === before) localStorage.removeItem(this.own);
            else localStorage.setItem(this.own, JSON.stringify({ before, text }));
            return true;
        } catch {
            // The storage is full or not allowed: then only this tab has the text.
            return false;
        }
    }

    /** Puts what tabs left unsent among what is offered. */
    collect() {
        const all = this.all();
        const begin = `chordane:unsent:${this.path}:`;
        try {
            for (const key of Object.keys(localStorage).filter((key) => key.startsWith(begin))) {
                all.push(JSON.parse(localStorage.getItem(key) ?? ""));
                this.store(all);
                localStorage.removeItem(key);
            }
        } catch {
            // The storage is full or not allowed.
        }
    }

    /** @returns {Typed[]} */
    all() {
        try {
            return JSON.parse(localStorage.getItem(this.offered) ?? "[]");
        } catch {
            return [];
        }
    }

    first() {
        return this.all()[0];
    }

    /** The first one is answered. */
    drop() {
        this.store(this.all().slice(1));
    }

    /** @param {Typed[]} all */
    store(all) {
        if (all.length === 0) localStorage.removeItem(this.offered);
        else localStorage.setItem(this.offered, JSON.stringify(all));
    }
}
