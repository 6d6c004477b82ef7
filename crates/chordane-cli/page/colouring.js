// The colours of the text: of scores, and of SVG documents.

import { EditorState, HighlightStyle, StreamLanguage, tags } from "./vendor/editor.js";

/** @typedef {import("@codemirror/language").StringStream} Stream */

const KEYWORDS = new Set(["let", "const", "fn", "if", "else", "for", "in", "while", "loop", "return", "break", "continue", "switch"]);

/** What goes on over the end of a line. @typedef {{inside: "" | "comment" | "tag" | "\"" | "'"}} Within */

/**
 * @param {Stream} stream
 * @param {Within} state
 * @param {string} end
 */
function comment(stream, state, end) {
    if (stream.skipTo(end)) {
        stream.match(end);
        state.inside = "";
    } else {
        stream.skipToEnd();
        state.inside = "comment";
    }
    return "comment";
}

/**
 * @param {Stream} stream
 * @param {Within} state
 * @param {(name: string) => boolean} isWord
 */
function score(stream, state, isWord) {
    if (state.inside === "comment") return comment(stream, state, "*/");
    if (stream.eatSpace()) return null;
    if (stream.match("//")) { stream.skipToEnd(); return "comment"; }
    if (stream.match("/*")) return comment(stream, state, "*/");
    if (stream.match(/"(?:[^"\\]|\\.)*"?/)) return "string";
    if (stream.match(/\d[\d_]*(?:\.\d+)?(?:[eE][+-]?\d+)?/)) return "number";
    const name = stream.match(/[A-Za-z_]\w*/);
    if (name && typeof name === "object") {
        const word = name[0] ?? "";
        if (KEYWORDS.has(word)) return "keyword";
        if (word === "true" || word === "false") return "atom";
        // A name that is not called is one of the score's own, whatever it is.
        return isWord(word) && stream.match(/\s*\(/, false) ? "function" : "variableName";
    }
    stream.next();
    return null;
}

/**
 * @param {Stream} stream
 * @param {Within} state
 */
function svg(stream, state) {
    if (state.inside === "comment") return comment(stream, state, "-->");
    if (state.inside === "\"" || state.inside === "'") {
        if (stream.skipTo(state.inside)) {
            stream.next();
            state.inside = "tag";
        } else {
            stream.skipToEnd();
        }
        return "string";
    }
    if (state.inside === "") {
        if (stream.match("<!--")) return comment(stream, state, "-->");
        if (stream.match(/<[?!][^>]*>?/)) return "comment";
        if (stream.match(/<\/?[^\s/>]*/)) {
            state.inside = "tag";
            return "keyword";
        }
        if (!stream.skipTo("<")) stream.skipToEnd();
        return null;
    }
    if (stream.eatSpace()) return null;
    if (stream.match(/\/?>/)) {
        state.inside = "";
        return "keyword";
    }
    const quote = stream.eat(/["']/);
    if (quote === "\"" || quote === "'") {
        state.inside = quote;
        return svg(stream, state);
    }
    if (stream.match(/[^\s=/>"']+/)) return "function";
    stream.next();
    return null;
}

/**
 * @param {(name: string) => boolean} isWord whether a name is a word of scores
 * @param {() => boolean} isDocument
 */
export const colouring = (isWord, isDocument) => StreamLanguage.define({
    name: "score",
    startState: () => /** @type {Within} */ ({ inside: "" }),
    copyState: (state) => ({ ...state }),
    token: (stream, state) => (isDocument() ? svg(stream, state) : score(stream, state, isWord)),
    tokenTable: { function: tags.function(tags.variableName) },
});

/**
 * How a comment is written.
 * @param {() => boolean} isDocument
 */
export const comments = (isDocument) => EditorState.languageData.of(() => [{
    commentTokens: isDocument() ? { block: { open: "<!--", close: "-->" } } : { line: "//", block: { open: "/*", close: "*/" } },
}]);

export const colours = HighlightStyle.define([
    { tag: tags.comment, class: "tok-comment" }, { tag: tags.string, class: "tok-string" },
    { tag: tags.number, class: "tok-number" }, { tag: tags.keyword, class: "tok-keyword" },
    { tag: tags.atom, class: "tok-number" }, { tag: tags.function(tags.variableName), class: "tok-word" },
]);
