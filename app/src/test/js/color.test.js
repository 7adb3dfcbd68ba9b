import assert from "node:assert/strict";
import { test } from "node:test";
import { fromHex, fromHsl, toHsl, withAlpha } from "../../main/resources/static/assets/color.js";

test("hsl as CSS Color 4 has it, and back", () => {
  // Its examples, section 7.
  assert.equal(fromHsl(120, 100, 25), "#008000");
  assert.equal(fromHsl(120, 100, 75), "#80ff80");
  assert.equal(fromHsl(0, 100, 50), "#ff0000");
  for (const color of ["#d8a13c", "#1f3347", "#010203", "#fefdfc", "#808080", "#ff00ff"]) {
    assert.equal(fromHsl(...toHsl(fromHex(color))), color);
  }
});

test("hex with and without alpha", () => {
  assert.deepEqual(fromHex("#0f08"), { r: 0, g: 1, b: 0, alpha: 136 / 255 });
  assert.equal(fromHex("#12345"), null);
  assert.equal(fromHex("red"), null);
  assert.equal(withAlpha("#123456", 0.5), "#12345680");
  assert.equal(withAlpha("#12345699", 1), "#123456");
});
