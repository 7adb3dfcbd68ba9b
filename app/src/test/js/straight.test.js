import assert from "node:assert/strict";
import { test } from "node:test";
import { straight, track } from "../../main/resources/static/assets/straight.js";

const sample = (width, box, lines = {}) => ({ width, height: 900, boxes: { 3: box }, lines });

test("a box halfway on a line is told by the line, one that is off is not", () => {
  const a = sample(400, [0, 0, 400, 50]);
  const b = sample(800, [0, 0, 800, 50]);
  assert.ok(straight(a, sample(600, [0, 0, 600, 50]), b));
  assert.ok(straight(a, sample(600, [0, 0, 600.15, 50]), b));
  assert.ok(!straight(a, sample(600, [0, 0, 600.3, 50]), b));
  assert.ok(!straight(a, sample(600, [0, 0, 600, 75]), b), "a line of text that breaks");
});

test("what is there at one width and not at another is no line", () => {
  const a = sample(400, [0, 0, 400, 50]);
  const b = sample(800, [0, 0, 800, 50]);
  assert.ok(!straight(a, { ...sample(600, [0, 0, 600, 50]), boxes: {} }, b));
  assert.ok(!straight(a, sample(600, [0, 0, 600, 50], { 3: [0, 0, 9, 9] }), b));
  assert.ok(!straight(a, { ...sample(600, [0, 0, 600, 50]), height: 950 }, b));
});

test("of points on a line its ends are kept, and each turn", () => {
  const widths = [320, 400, 500, 600, 700, 800];
  assert.deepEqual(track(widths, [[0], [8], [18], [28], [38], [48]]), [[320, 0], [800, 48]]);
  assert.deepEqual(track(widths, [[0], [8], [18], [18], [18], [18]]), [[320, 0], [500, 18], [800, 18]]);
  // Hidden between two widths: an empty one says from where.
  assert.deepEqual(track(widths, [[5], [5], [], [], [7], [7]]), [[320, 5], [400, 5], [500], [700, 7], [800, 7]]);
});
