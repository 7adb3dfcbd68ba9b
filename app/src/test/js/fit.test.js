import assert from "node:assert/strict";
import { test } from "node:test";
import { cut, missing, placedCut } from "../../main/resources/static/assets/fit.js";
import { speak } from "../../main/resources/static/assets/say.js";
import { cases } from "./cases.js";
import { english } from "./english.js";

speak(english());

test("what is cut out and what is missing is what core says", () => {
  const all = cases("cuts");
  assert.ok(all.length > 8);
  for (const { asks, size, cut: wanted, missing: lacks } of all) {
    assert.deepEqual(cut(asks, ...size), wanted, JSON.stringify(asks));
    assert.equal(missing(asks, ...size), lacks && `It ${lacks}`);
  }
});

test("a cut stays inside of its picture wherever its middle is wanted", () => {
  assert.deepEqual(placedCut([200, 100], 400, 100, 0, 0.5), [0, 0]);
  assert.deepEqual(placedCut([200, 100], 400, 100, 0.5, 0.5), [100, 0]);
  assert.deepEqual(placedCut([200, 100], 400, 100, 1, 0.5), [200, 0]);
  assert.deepEqual(placedCut([400, 50], 400, 100, 0.5, 0.9), [0, 50]);
});
