// What of the text editor component the page uses. build.mjs makes vendor/editor.js of it.
export { autocompletion, completionKeymap } from "@codemirror/autocomplete";
export { defaultKeymap, indentWithTab } from "@codemirror/commands";
export { bracketMatching, HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
export { linter, lintGutter, setDiagnostics } from "@codemirror/lint";
export { highlightSelectionMatches, searchKeymap } from "@codemirror/search";
export { Annotation, Compartment, EditorSelection, EditorState, StateEffect, StateField } from "@codemirror/state";
export {
    Decoration, drawSelection, EditorView, highlightActiveLine, highlightActiveLineGutter, hoverTooltip, keymap,
    lineNumbers, tooltips,
} from "@codemirror/view";
export { tags } from "@lezer/highlight";
