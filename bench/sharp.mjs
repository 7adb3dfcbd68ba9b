// Does with the same photograph what PictureBench does, with sharp (npm, Apache-2.0) on libvips, warm. What is asked for at once it works out on all cores; ours uses one.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
const sharp = createRequire(process.argv[2] + "/")("sharp");
sharp.concurrency(1);
sharp.cache(false);
const photo = readFileSync(process.argv[3]);
const works = {
  measured: () => Promise.all([sharp(photo).metadata(), sharp(photo).stats()]),
  fourWidths: () => Promise.all([480, 800, 1280, 1920].map((w) => sharp(photo).resize(w).jpeg({ quality: 82 }).toBuffer())),
  fourWidthsOneByOne: async () => {
    for (const w of [480, 800, 1280, 1920]) await sharp(photo).resize(w).jpeg({ quality: 82 }).toBuffer();
  },
  recoloured: () =>
    sharp(photo)
      .composite([{ input: { create: { width: 4000, height: 3000, channels: 4, background: { r: 43, g: 138, b: 62, alpha: 0.4 } } } }])
      .jpeg({ quality: 90 })
      .toBuffer(),
  asWebp: () => sharp(photo).resize(1920).webp({ quality: 80, effort: 5 }).toBuffer(),
};
for (const [name, work] of Object.entries(works)) {
  for (let i = 0; i < 3; i++) await work();
  const times = [];
  for (let i = 0; i < 12; i++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  console.log(`sharp ${name}: mean ${(times.reduce((a, b) => a + b) / times.length).toFixed(0)} ms, median ${times[6].toFixed(0)} ms`);
}
