// Colours laid over each other, and how well they can be told apart. Pure reckoning, no document: node --test runs it on the cases that
// core is held to. A colour is { r, g, b, a }: 0 to 255, and 0 to 1.
// Simple alpha compositing (Compositing and Blending Level 1, section 5.1).
export function over(top, under) {
  const a = top.a + under.a * (1 - top.a);
  const mix = (t, u) => (a === 0 ? 0 : (t * top.a + u * under.a * (1 - top.a)) / a);
  return { r: mix(top.r, under.r), g: mix(top.g, under.g), b: mix(top.b, under.b), a };
}
// Relative luminance and contrast ratio as WCAG 2.2 defines them.
export function luminance({ r, g, b }) {
  const line = (v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
  return 0.2126 * line(r) + 0.7152 * line(g) + 0.0722 * line(b);
}
export const contrast = (x, y) => (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
export const ratio = (x, y) => contrast(luminance(x), luminance(y));

export const nothing = { r: 0, g: 0, b: 0, a: 0 };
export const faded = (color, opacity) => (opacity === 1 ? color : { ...color, a: color.a * opacity });
export const same = (x, y) => x.r === y.r && x.g === y.g && x.b === y.b && Math.abs(x.a - y.a) < 0.01;
export const hex = (c) => "#" + [c.r, c.g, c.b].map((v) => Math.round(v).toString(16).padStart(2, "0")).join("");

// Colours of which one goes while another comes: each by itself, and what lies between any two.
const MOST_ENDS = 30;
const STEPS = 16;
export function comings(ends) {
  const all = [...ends];
  ends.slice(0, MOST_ENDS).forEach((one, i) => ends.slice(i + 1, MOST_ENDS).forEach((other) => {
    for (let step = 1; step < STEPS; step++) all.push(over(faded(other, step / STEPS), one));
  }));
  return all;
}
