import assert from "node:assert/strict";
import { test } from "node:test";
import { unsafe } from "../../main/resources/static/assets/safe.js";

test("what is not safe of a slider is what its safe spans leave, in percent of its way", () => {
  assert.deepEqual(unsafe([[0.5, 1]], 0, 1), [[0, 50]]);
  assert.deepEqual(unsafe([[20, 40], [60, 80]], 0, 100), [[0, 20], [40, 60], [80, 100]]);
  assert.deepEqual(unsafe([[-10, 10]], -10, 10), []);
  assert.deepEqual(unsafe([], 2, 6), [[0, 100]]);
  // One value alone is safe: both sides of it are not.
  assert.deepEqual(unsafe([[5, 5]], 0, 10), [[0, 50], [50, 100]]);
});
