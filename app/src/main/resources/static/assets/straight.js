// Boxes at window widths, and what a straight line between two of them tells of a third. Pure reckoning, no document.
// Of half a pixel, twice: where it is looked at, and where points are left out.
const NEAR = 0.2;

const between = (a, b, share) => a.map((v, i) => v + (b[i] - v) * share);
const near = (a, b) => a.length === b.length && a.every((v, i) => Math.abs(v - b[i]) <= NEAR);
// Whether a sample lies where a straight line between two others has it.
export function straight(a, m, b) {
  const share = (m.width - a.width) / (b.width - a.width);
  if (Math.abs(a.height + (b.height - a.height) * share - m.height) > 1) return false;
  return ["boxes", "lines"].every((kind) => {
    const keys = Object.keys(m[kind]);
    if (keys.length !== Object.keys(a[kind]).length || keys.length !== Object.keys(b[kind]).length) return false;
    return keys.every((k) => {
      const [x, y] = [a[kind][k], b[kind][k]];
      return x && y && x.length === y.length && near(between(x, y, share), m[kind][k]);
    });
  });
}

// Of what was measured only the points that a line between others does not tell.
export function track(widths, values) {
  const points = [];
  const list = widths.map((w, i) => [w, values[i] || []]);
  let last = 0;
  points.push(list[0]);
  while (last < list.length - 1) {
    let next = last + 1;
    const fits = (end) => {
      const [a, b] = [list[last], list[end]];
      if (a[1].length !== b[1].length) return false;
      for (let i = last + 1; i < end; i++) {
        if (list[i][1].length !== a[1].length || !near(between(a[1], b[1], (list[i][0] - a[0]) / (b[0] - a[0])), list[i][1])) return false;
      }
      return true;
    };
    while (next + 1 < list.length && fits(next + 1)) next++;
    points.push(list[next]);
    last = next;
  }
  return points.filter((p, i) => i === 0 || i === points.length - 1 || p[1].length || points[i - 1][1].length).map(([w, v]) => [w, ...v]);
}
