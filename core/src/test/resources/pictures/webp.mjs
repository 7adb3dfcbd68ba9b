// Makes the WebP files here: drawn and encoded by Chromium (VP8 at quality 0.8; VP8L where the quality is 1), without and with alpha.
// Run with Playwright's package and a browser: node webp.mjs PACKAGE /usr/bin/chromium
import { createRequire } from "node:module";
import { writeFileSync } from "node:fs";

const { chromium } = createRequire(import.meta.url)(process.argv[2]);
const browser = await chromium.launch({ executablePath: process.argv[3], args: ["--no-sandbox"] });
const page = await browser.newPage();
for (const [name, alpha, quality] of [["lossy", false, 0.8], ["lossy-alpha", true, 0.8], ["lossless", false, 1], ["lossless-alpha", true, 1]]) {
  const base64 = await page.evaluate(async ([alpha, quality]) => {
    const canvas = new OffscreenCanvas(97, 61);
    const g = canvas.getContext("2d");
    const sky = g.createLinearGradient(0, 0, 97, 61);
    [["#102040", 0], ["#d8a13c", 0.6], ["#f6e9d2", 1]].forEach(([c, at]) => sky.addColorStop(at, c));
    g.globalAlpha = alpha ? 0.6 : 1;
    g.fillStyle = sky;
    g.fillRect(0, 0, 97, 61);
    g.globalAlpha = 1;
    g.fillStyle = "#7a1f2b";
    g.beginPath();
    g.moveTo(20, 50); g.lineTo(44, 12); g.lineTo(70, 50);
    g.fill();
    g.clearRect(80, 4, alpha ? 10 : 0, 10);
    const blob = await canvas.convertToBlob({ type: "image/webp", quality });
    return btoa(String.fromCharCode(...new Uint8Array(await blob.arrayBuffer())));
  }, [alpha, quality]);
  writeFileSync(`${name}.webp`, Buffer.from(base64, "base64"));
}
await browser.close();
