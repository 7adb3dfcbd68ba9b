// Compiles the published SCSS of frameworks twice, for two brand colours: what differs was computed from the brand, and the second
// sheet is what it becomes. Run once in a folder with `npm i sass@1.108.2 bootstrap@5.3.8 bulma@0.9.4 foundation-sites@6.9.0
// spectre.css@0.5.9 uikit@3.25.29`; the result is families.txt and the sheets beside it.
import { compileString } from "sass";
import { gzipSync } from "node:zlib";
import { writeFileSync, readFileSync } from "node:fs";

const version = (name) => JSON.parse(readFileSync(`node_modules/${name}/package.json`, "utf8")).version;
const FRAMEWORKS = [
  ["bootstrap", (c) => `$primary: ${c};\n@import "bootstrap/scss/bootstrap";`, "#0d6efd", "#8a3ffc"],
  ["bulma", (c) => `$primary: ${c};\n@import "bulma/bulma";`, "#00d1b2", "#2f9e44"],
  ["foundation-sites", (c) => `$foundation-palette: (primary: ${c}, secondary: #767676, success: #3adb76, warning: #ffae00, alert: #cc4b37);
@import "foundation-sites/scss/foundation";
@include foundation-everything;`, "#1779ba", "#2e7d32"],
  ["spectre.css", (c) => `$primary-color: ${c};\n@import "spectre.css/src/spectre";`, "#5755d9", "#2f8f4e"],
  ["uikit", (c) => `$global-primary-background: ${c};\n@import "uikit/src/scss/variables"; @import "uikit/src/scss/mixins"; @import "uikit/src/scss/uikit";`, "#1e87f0", "#0f8a4c"],
];
// Of rgba(10, 88, 202, var(--x)) only the numbers are a colour; in addresses of drawings brackets are escaped.
const COLOR = /(?<=\brgba?\()\d[\d.]*, \d[\d.]*, \d[\d.]*(?=, var\()|\brgb%28[^()'"]*?%29|#[0-9a-f]{3,8}\b|%23[0-9a-f]{3,8}\b|(?:rgb|hsl)a?\([^()]*\)|(?<=^\s*--[\w-]+: )\d{1,3}, ?\d{1,3}, ?\d{1,3}(?=;)|\b(?:white|black|transparent)\b/gi;
const quiet = { debug() {}, warn() {} };
const out = [];
for (const [name, source, a, b] of FRAMEWORKS) {
  const make = (c) => compileString(source(c), { loadPaths: ["node_modules"], style: "expanded", logger: quiet, quietDeps: true }).css.replace(/^@charset.*\n/, "").split("\n");
  const [x, y] = [make(a), make(b)];
  if (x.length !== y.length) throw new Error(`${name}: ${x.length} and ${y.length} lines`);
  let count = 0;
  out.push(`# ${name} ${version(name)} ${a} ${b}`);
  x.forEach((line, i) => {
    if (line === y[i]) return;
    const [p, q] = [line.match(COLOR) || [], y[i].match(COLOR) || []];
    p.forEach((c, k) => { if (c !== q[k]) { count++; out.push([i + 1, c, q[k]].join("\t")); } });
    if (p.length !== q.length || !p.length) console.log("odd", name, line, "|", y[i]);
  });
  console.log(name, version(name), x.length, count);
  writeFileSync(`${name.replace(".css", "")}.css.gz`, gzipSync(x.join("\n"), { level: 9 }));
}
console.log("sass", version("sass"));
writeFileSync("families.txt", out.join("\n") + "\n");
