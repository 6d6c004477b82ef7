// The types of vendor/editor.js are those of the packages it is built from.
export * from "../editor.js";
