import assert from "node:assert/strict";
import { test } from "node:test";
import { comings, faded, hex, luminance, nothing, over, ratio } from "../../main/resources/static/assets/paint.js";
import { cases } from "./cases.js";

const color = ([r, g, b, a]) => ({ r, g, b, a });

test("contrast over layers is what core says", () => {
  const all = cases("layers");
  assert.equal(all.length, 300);
  for (const c of all) {
    const ground = c.layers.map(color).reduceRight((under, top) => over(top, under), nothing);
    const said = ratio(over(color(c.text), ground), ground);
    assert.ok(Math.abs(said - c.ratio) < 1e-6, `${JSON.stringify(c)} is ${said}`);
  }
});

test("luminance and ratio as WCAG 2.2 has them", () => {
  assert.equal(luminance({ r: 255, g: 255, b: 255 }), 1);
  assert.equal(luminance({ r: 0, g: 0, b: 0 }), 0);
  assert.equal(ratio({ r: 0, g: 0, b: 0, a: 1 }, { r: 255, g: 255, b: 255, a: 1 }), 21);
  // #767676 is the lightest grey that keeps 4.5 on white (common practice).
  assert.ok(ratio({ r: 118, g: 118, b: 118 }, { r: 255, g: 255, b: 255 }) >= 4.5);
  assert.ok(ratio({ r: 119, g: 119, b: 119 }, { r: 255, g: 255, b: 255 }) < 4.5);
});

test("of colours that come and go each is there, and what lies between two", () => {
  const white = { r: 255, g: 255, b: 255, a: 1 };
  const black = { r: 0, g: 0, b: 0, a: 1 };
  assert.deepEqual(comings([white]), [white]);
  const all = comings([white, black]);
  assert.equal(all.length, 17);
  assert.ok(all.some((c) => hex(c) === "#808080"));
  assert.equal(faded(white, 0.5).a, 0.5);
  assert.deepEqual(over(white, black), white);
  assert.deepEqual(over(nothing, nothing), nothing);
});
