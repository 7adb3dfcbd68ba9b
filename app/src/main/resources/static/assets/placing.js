// Where the tiles of a background land in its box. Pure reckoning, no document: node --test runs it on the cases that core is held to.
// Lengths that a setting takes, in CSS px; a percentage is of what is left or of the box.
export const VALUE = /^(-?(?:\d+\.?\d*|\.\d+))(px|%|rem|em|vw|vh)?$/;
export function px(text, of, view) {
  const [, number, unit] = VALUE.exec(text) || [];
  const per = { "%": of / 100, rem: 16, em: 16, vw: view[0] / 100, vh: view[1] / 100 };
  return Number(number) * (per[unit] ?? 1);
}
export const SHARES = { left: "0%", top: "0%", center: "50%", right: "100%", bottom: "100%" };
// A position as two values, or as four: an edge and a distance from it each way (CSS Backgrounds 3, section 3.6). The answer is for each
// way whether it is reckoned from the end, and the distance; null for what is no such position. What else is a position is brought into
// one of these forms when it is kept.
export function reading(position) {
  const words = position.trim().split(/\s+/);
  const found = words.length === 4 ? [[words[0], words[1]], [words[2], words[3]]]
    : words.length !== 2 ? null
      : /^(top|bottom)$/.test(words[0]) || /^(left|right)$/.test(words[1]) ? [["", words[1]], ["", words[0]]] : [["", words[0]], ["", words[1]]];
  const ends = [["left", "center", "right"], ["top", "center", "bottom"]];
  const known = found?.every(([edge, at], i) => (edge === "" ? ends[i].includes(at) || VALUE.test(at) : edge !== "center" && ends[i].includes(edge) && VALUE.test(at)));
  return known ? found.map(([edge, at]) => ({ fromEnd: edge === "right" || edge === "bottom", at })) : null;
}

// Where a picture lands in its box, as core's Placement has it (CSS Backgrounds 3, sections 3.4, 3.6 and 3.9); the cases of placing.json hold the two
// together. natural and box: [width, height] in CSS px; the answer has the placed tile, the steps to the next ones, and whether there are.
export function placed({ position, size, repeat }, natural, box, view) {
  const ratio = natural[0] / natural[1];
  const words = size.split(/\s+/);
  let tile;
  if (size === "cover" || size === "contain") {
    const byWidth = (box[0] / ratio >= box[1]) === (size === "cover");
    tile = byWidth ? [box[0], box[0] / ratio] : [box[1] * ratio, box[1]];
  } else {
    const given = [0, 1].map((i) => ((words[i] ?? "auto") === "auto" ? null : Math.max(0, px(words[i], box[i], view))));
    tile = given[0] === null && given[1] === null ? [...natural]
      : [given[0] ?? given[1] * ratio, given[1] ?? given[0] / ratio];
  }
  const before = [...tile];
  const [first, second] = repeat.split(/\s+/);
  const repeats = first === "repeat-x" ? ["repeat", "no-repeat"] : first === "repeat-y" ? ["no-repeat", "repeat"] : [first, second ?? first];
  const round = repeats.map((r, i) => r === "round" && box[i] > 0);
  const open = (i) => size === "cover" || size === "contain" || (words[i] ?? "auto") === "auto";
  for (const i of [0, 1]) if (round[i]) tile[i] = box[i] / Math.max(1, Math.floor(box[i] / before[i] + 0.5 + 1e-9));
  if (round[0] && !round[1] && open(1)) tile[1] = before[1] * tile[0] / before[0];
  if (round[1] && !round[0] && open(0)) tile[0] = before[0] * tile[1] / before[1];
  const where = reading(position);
  const at = [0, 1].map((i) => {
    const room = box[i] - before[i];
    const distance = px(SHARES[where[i].at] ?? where[i].at, room, view);
    return where[i].fromEnd ? room - distance : distance;
  });
  const step = [...tile];
  const many = [0, 1].map((i) => {
    if (repeats[i] !== "space") return repeats[i] === "repeat" || repeats[i] === "round";
    const count = Math.floor(box[i] / tile[i] + 1e-9);
    if (count < 2) return false;
    at[i] = 0;
    step[i] = tile[i] + (box[i] - count * tile[i]) / (count - 1);
    return true;
  });
  return { at, tile, step, many };
}

// The tiles that touch the box, the placed one first; no more than can be told apart.
const MOST_TILES = 300;
export function tiles({ at, tile, step, many }, box) {
  const starts = [0, 1].map((i) => {
    if (!many[i]) return [at[i]];
    const all = [at[i]];
    for (let k = Math.floor((0 - at[i] - tile[i]) / step[i]) + 1; at[i] + k * step[i] < box[i] - 0.01 && all.length < MOST_TILES; k++) {
      if (k !== 0) all.push(at[i] + k * step[i]);
    }
    return all;
  });
  return starts[1].flatMap((y) => starts[0].map((x) => [x, y])).slice(0, MOST_TILES);
}
