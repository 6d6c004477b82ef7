// What was typed and has not reached the program, in the browser's storage: by the file's path, so that a program that is started again can be given it.

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
     * What this tab shows beside what the program has; nothing is kept where they are the same.
     * @param {string} before
     * @param {string} text
     */
    unsent(before, text) {
        if (this.path === "") return;
        try {
            if (text === before) localStorage.removeItem(this.own);
            else localStorage.setItem(this.own, JSON.stringify({ before, text }));
        } catch {
            // The storage is full or not allowed: then the tab itself is all that keeps it.
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
            // As above.
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
