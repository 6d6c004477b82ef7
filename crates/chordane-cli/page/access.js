// Who is let in: a page needs the token of the program that runs, which stands behind the # of the address that it printed.

import { element, html } from "./parts.js";

export const token = location.hash.slice(1);

// Another token, of a program that was started again, in the same tab.
addEventListener("hashchange", () => location.reload());

/**
 * Whether the program lets this page in; "away" where none answers.
 * @returns {Promise<"in" | "refused" | "away">}
 */
export async function access() {
    try {
        const { status } = await fetch(`/own/none?token=${encodeURIComponent(token)}`);
        return status === 403 ? "refused" : "in";
    } catch {
        return "away";
    }
}

/** Says that the page is not let in, and what to do. What is typed into it is kept. */
export function tellRefused() {
    const box = html("access");
    if (!box.hidden) return;
    const what = token === ""
        ? "This address has no token: the part behind the # is missing."
        : "The token of this address is not that of the program that runs now. It was started again, or the address was not copied whole.";
    box.replaceChildren(
        element("h2", { text: "No access" }), element("p", { text: what }),
        element("p", { text: "Go to the terminal where chordane runs, copy the whole line that begins with http://, and open it here or in another tab. What you typed or drew is kept." }),
    );
    box.hidden = false;
}
