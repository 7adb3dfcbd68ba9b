// Makes the pictures that ResizeTest compares with: a drawn one of 300 by 200 with edges, slopes, grain and alpha, and what sharp
// (npm, Apache-2.0, on libvips) makes of it with its usual kernel, Lanczos with three lobes.
//   npm install --prefix DIR sharp@0.34.4 && node resize.mjs DIR
import { createRequire } from "node:module";
import { writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
const sharp = createRequire(process.argv[2] + "/")("sharp");
const here = dirname(fileURLToPath(import.meta.url));
const [w, h] = [300, 200];
const data = Buffer.alloc(w * h * 4);
let noise = 7;
for (let y = 0; y < h; y++) {
  for (let x = 0; x < w; x++) {
    noise = (Math.imul(noise, 1103515245) + 12345) | 0;
    const grain = ((noise >>> 16) % 17) - 8;
    const ring = Math.hypot(x - 190, y - 90) < 50;
    const stripe = x < 90 && Math.floor((x + y) / 6) % 2 === 0;
    const rgb = ring ? [230, 170, 60] : stripe ? [20, 50, 80] : [90 + x / 3, 120 + y / 4, 160];
    rgb.forEach((c, i) => { data[(y * w + x) * 4 + i] = Math.max(0, Math.min(255, Math.round(c + grain))); });
    data[(y * w + x) * 4 + 3] = y > 170 ? 255 - (y - 170) * 8 : 255;
  }
}
const source = await sharp(data, { raw: { width: w, height: h, channels: 4 } }).png().toBuffer();
writeFileSync(join(here, "resize.png"), source);
for (const width of [220, 150, 60]) {
  writeFileSync(join(here, `resize-${width}.png`), await sharp(source).resize(width).png({ compressionLevel: 9 }).toBuffer());
}
