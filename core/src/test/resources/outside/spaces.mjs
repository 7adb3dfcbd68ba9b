// Writes spaces.txt: colours in all spaces, what lies in the gamut of sRGB, and distances, as colorjs.io 0.7.1 (the file beside this
// one) has them. node spaces.mjs > spaces.txt
import { readFileSync } from "node:fs";
import { dirname } from "node:path";
import { fileURLToPath } from "node:url";
import vm from "node:vm";

const here = dirname(fileURLToPath(import.meta.url));
const world = { console };
vm.createContext(world);
vm.runInContext(readFileSync(here + "/colorjs-0.7.1.global.min.js", "utf8") + ";globalThis.Color = Color", world);
const { Color } = world;
const ids = { srgb: "srgb", "srgb-linear": "srgb-linear", "display-p3": "p3", "a98-rgb": "a98rgb", "prophoto-rgb": "prophoto", rec2020: "rec2020",
  "xyz-d65": "xyz-d65", "xyz-d50": "xyz-d50", lab: "lab", lch: "lch", oklab: "oklab", oklch: "oklch", hsl: "hsl", hwb: "hwb" };
const colors = ["black", "white", "rebeccapurple", "#123456", "#fedcba", "#808080", "#010101", "#ff0000", "#00ff80", "#0b0b0b",
  "color(display-p3 0 1 0)", "color(display-p3 1 0 0.5)", "color(prophoto-rgb 0.001 0.01 0.9)", "color(a98-rgb -0.2 0.5 1.1)",
  "color(rec2020 0.01 0.5 0.99)", "lab(5 2 -4)", "lab(60 -90 40)", "oklch(0.7 0.3 40)", "hsl(200 30 40)", "hwb(300 20 30)"];
console.log("# colorjs.io 0.7.1 (MIT): colour, space, its three components; gamut: whether in sRGB; distance: deltaE OK.");
for (const text of colors) {
  const color = new Color(text);
  for (const [css, id] of Object.entries(ids)) {
    console.log([text, css, ...color.to(id).coords.map((c) => (c === null || Number.isNaN(c) ? "none" : +c.toPrecision(10)))].join("\t"));
  }
  console.log([text, "gamut", color.inGamut("srgb", { epsilon: 0 })].join("\t"));
  console.log([text, "distance", new Color("#345678").deltaE(color, "OK").toPrecision(10)].join("\t"));
}
