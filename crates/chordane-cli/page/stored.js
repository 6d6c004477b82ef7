// Small values in the browser's storage. Where it is full or not allowed, nothing is stored.

/** @param {string} name */
export function stored(name) {
    try {
        return localStorage.getItem(`chordane-${name}`);
    } catch {
        return null;
    }
}

/**
 * Stores a value, or removes it.
 * @param {string} name
 * @param {string | null} value
 */
export function store(name, value) {
    try {
        if (value === null) localStorage.removeItem(`chordane-${name}`);
        else localStorage.setItem(`chordane-${name}`, value);
    } catch {
        // Next time it is as by default.
    }
}
