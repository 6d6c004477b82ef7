// Small helpers for the page's elements.

/**
 * An element by its id, of a kind.
 * @template {Element} T
 * @param {string} id
 * @param {new () => T} kind
 * @returns {T}
 */
export function part(id, kind) {
    const found = document.getElementById(id);
    if (!(found instanceof kind)) throw new Error(`the page has no ${id}`);
    return found;
}

/** @param {string} id */
export const button = (id) => part(id, HTMLButtonElement);
/** @param {string} id */
export const input = (id) => part(id, HTMLInputElement);
/** @param {string} id */
export const html = (id) => part(id, HTMLElement);

/**
 * A new element with properties and children. Texts are put in as texts, never as markup.
 * @template {keyof HTMLElementTagNameMap} K
 * @param {K} name
 * @param {Partial<Record<string, string | boolean | number>>} [properties]
 * @param {...(Node | string)} children
 * @returns {HTMLElementTagNameMap[K]}
 */
export function element(name, properties = {}, ...children) {
    const made = document.createElement(name);
    for (const [key, value] of Object.entries(properties)) {
        if (value === false || value === undefined) continue;
        if (key === "text") made.textContent = String(value);
        else made.setAttribute(key, value === true ? "" : String(value));
    }
    made.append(...children);
    return made;
}

/**
 * A new element of an SVG drawing.
 * @param {string} name
 * @param {Record<string, string | number>} properties
 * @returns {SVGElement}
 */
export function drawn(name, properties) {
    const made = document.createElementNS("http://www.w3.org/2000/svg", name);
    for (const [key, value] of Object.entries(properties)) made.setAttribute(key, String(value));
    return made;
}

/**
 * A number as it is read: with at most so many decimals.
 * @param {number} value
 * @param {number} [decimals]
 */
export function short(value, decimals = 2) {
    const text = value.toFixed(decimals);
    const plain = text.includes(".") ? text.replace(/\.?0+$/, "") : text;
    return plain === "-0" ? "0" : plain;
}

/**
 * Whether an event is one of a button or a message that lies on the picture, and not of the picture.
 * @param {Event} event
 */
export const isOnControl = (event) => event.target instanceof Element && event.target.closest("#mistake, #toast, button") !== null;

/**
 * Asks something above the page, and waits for the answer however long it takes.
 * @param {string} id
 * @param {string} text
 * @param {[label: string, act: () => void][]} answers
 */
export function question(id, text, answers) {
    document.getElementById(id)?.remove();
    const buttons = answers.map(([label, act]) => {
        const answer = element("button", { text: label });
        answer.addEventListener("click", () => {
            box.remove();
            act();
        });
        return answer;
    });
    const box = element("div", { id, class: "question", role: "alert" }, element("span", { text }), ...buttons);
    html("questions").append(box);
}

/** So near in pixels the pointer, or a finger, takes hold of something. @param {PointerEvent | undefined} event */
export const reachOf = (event) => (event?.pointerType === "touch" ? 22 : 9);

/** What moves by fewer pixels than this between down and up is a click. @param {PointerEvent} event */
export const stillOf = (event) => (event.pointerType === "touch" ? 7 : 3);

/**
 * Whether a key goes into a field for text or numbers.
 * @param {Event} event
 */
export const isTyping = (event) => event.target instanceof Element
    && event.target.closest(".cm-editor, select, textarea, input:not([type=range], [type=checkbox], [type=color], [type=button])") !== null;

/** @type {ReturnType<typeof setTimeout> | undefined} */
let announces;

/**
 * Says something to those who listen to the page. Of what comes quickly one after the other, the last.
 * @param {string} text
 */
export function announce(text) {
    clearTimeout(announces);
    announces = setTimeout(() => { html("said").textContent = text; }, 250);
}

/** @type {ReturnType<typeof setTimeout> | undefined} */
let toastEnds;

/**
 * Says something for a while.
 * @param {string} text
 * @param {{label: string, act: () => void}} [action]
 */
export function toast(text, action) {
    const box = html("toast");
    box.replaceChildren(text);
    if (action !== undefined) {
        const act = element("button", { text: action.label });
        act.addEventListener("click", () => {
            action.act();
            box.hidden = true;
        });
        box.append(" ", act);
    }
    box.hidden = false;
    clearTimeout(toastEnds);
    toastEnds = setTimeout(() => { box.hidden = true; }, action === undefined ? 4000 : 20000);
}
