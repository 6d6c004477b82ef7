// Builds vendor/editor.js, the text editor component as one file, with its licences at its top.
import { build } from "esbuild";
import { readFileSync, readdirSync, writeFileSync, existsSync } from "node:fs";

const result = await build({
    entryPoints: ["editor.js"], bundle: true, format: "esm", minify: true, write: false, metafile: true,
    charset: "utf8", target: "es2022", legalComments: "none",
});
// The packages that are in it, by the files that were read.
const names = new Set(Object.keys(result.metafile.inputs)
    .map((file) => /node_modules\/((?:@[^/]+\/)?[^/]+)\//.exec(file)?.[1]).filter((name) => name !== undefined));
const packages = [...names].sort().map((name) => {
    const about = JSON.parse(readFileSync(`node_modules/${name}/package.json`, "utf8"));
    const file = readdirSync(`node_modules/${name}`).find((one) => /^licen[cs]e/i.test(one));
    const licence = file === undefined ? about.license : readFileSync(`node_modules/${name}/${file}`, "utf8").trim();
    return { line: `${name} ${about.version} (${about.license})`, licence };
});
const head = ["The text editor component, built by build.mjs from these packages of the npm registry:",
    ...packages.map((one) => `  ${one.line}`), "The licence of each stands in LICENCES.md beside this file."];
writeFileSync("vendor/editor.js", `/*! ${head.join("\n")}\n*/\n${result.outputFiles[0].text}`);
const licences = packages.map((one) => `## ${one.line}\n\n${one.licence}\n`);
writeFileSync("vendor/LICENCES.md", `# Licences of what vendor/editor.js is built from\n\n${licences.join("\n")}`);
if (!existsSync("vendor/editor.d.ts")) throw new Error("vendor/editor.d.ts is missing");
