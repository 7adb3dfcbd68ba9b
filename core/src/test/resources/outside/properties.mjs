// Writes properties.txt: what the specifications say of each property, one line each: name, whether it is inherited, initial value,
// animation type. Run in a folder with @webref/css 8.7.5 from npm: node properties.mjs > properties.txt
import { createRequire } from "node:module";

const { properties } = createRequire(process.cwd() + "/")("@webref/css/css.json");
const line = (text) => (text || "").replace(/\s+/g, " ").trim();
console.log("# Of the specifications, as @webref/css 8.7.5 (W3C, MIT) reads them out: name, inherited, initial value, animation type.");
for (const p of properties.sort((a, b) => (a.name < b.name ? -1 : 1))) {
  if (p.initial || p.inherited) console.log([p.name, line(p.inherited), line(p.initial), line(p.animationType)].join("\t"));
}
