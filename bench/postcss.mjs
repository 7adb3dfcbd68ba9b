// Reads the same sheets with PostCSS (npm, MIT), warm, as the measure that ours is held against.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
const postcss = createRequire(process.argv[2] + "/")("postcss");
for (const name of ["bootstrap", "bulma"]) {
  const css = readFileSync(`${process.argv[3]}/${name}.css`, "utf8");
  for (let i = 0; i < 30; i++) postcss.parse(css);
  const times = [];
  for (let i = 0; i < 40; i++) {
    const start = performance.now();
    postcss.parse(css);
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  const mean = times.reduce((a, b) => a + b) / times.length;
  console.log(`PostCSS ${name}: mean ${mean.toFixed(2)} ms, median ${times[20].toFixed(2)} ms`);
}
