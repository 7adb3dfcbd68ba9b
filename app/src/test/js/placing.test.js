import assert from "node:assert/strict";
import { test } from "node:test";
import { VALUE, placed, px, reading, tiles } from "../../main/resources/static/assets/placing.js";
import { cases } from "./cases.js";

const VIEW = [1440, 900];
const near = (a, b) => Math.abs(a - b) < 0.001;

test("a picture lands in its box where core says it", () => {
  const all = cases("placing");
  assert.equal(all.length, 400);
  for (const c of all) {
    const p = placed(c, c.natural, c.box, VIEW);
    const which = `${JSON.stringify(c)} is ${JSON.stringify(p)}`;
    assert.deepEqual(p.many.map(Boolean), c.many, which);
    for (const i of [0, 1]) {
      assert.ok(near(p.at[i], c.at[i]) && near(p.tile[i], c.tile[i]), which);
      assert.ok(!c.many[i] || near(p.step[i], c.step[i]), which);
    }
  }
});

test("tiles cover a box that they repeat in, and are never more than can be told apart", () => {
  const box = [100, 60];
  const p = placed({ position: "10px 0%", size: "auto", repeat: "repeat" }, [30, 20], box, VIEW);
  const all = tiles(p, box);
  assert.deepEqual(all[0], p.at);
  for (let x = 0.5; x < box[0]; x += 7) {
    for (let y = 0.5; y < box[1]; y += 7) {
      assert.ok(all.some(([left, top]) => x >= left && x < left + 30 && y >= top && y < top + 20), `${x} ${y}`);
    }
  }
  const dust = placed({ position: "0% 0%", size: "auto", repeat: "repeat" }, [1, 1], [500, 500], VIEW);
  assert.equal(tiles(dust, [500, 500]).length, 300);
  assert.equal(tiles(placed({ position: "center center", size: "cover", repeat: "no-repeat" }, [30, 20], box, VIEW), box).length, 1);
});

test("a position from any edge lands where one from the left and the top does", () => {
  const at = (position) => placed({ position, size: "auto", repeat: "no-repeat" }, [40, 30], [100, 80], VIEW).at;
  assert.deepEqual(at("right 10px bottom 20%"), [50, 40]);
  assert.deepEqual(at("left 10px top 20%"), [10, 10]);
  assert.deepEqual(at("bottom right"), at("right bottom"));
  assert.deepEqual(at("top center"), at("center top"));
  for (const no of ["", "left", "left left", "top bottom", "right top 10px", "center 10px top 5px", "10px 5px 3px 1px"]) assert.equal(reading(no), null, no);
});

test("lengths that are typed are read, and no others", () => {
  const read = (text) => px(text, 200, VIEW);
  assert.deepEqual(["10px", "-4px", "50%", "2rem", "1.5em", "10vw", "10vh", "0", ".5px"].map(read), [10, -4, 100, 32, 24, 144, 90, 0, 0.5]);
  for (const no of ["", "px", "1 0px", "10pt", "calc(1px)", "1.2.3px", "10PX", "1e3px", "--1px", "left"]) {
    assert.ok(!VALUE.test(no), no);
  }
});
