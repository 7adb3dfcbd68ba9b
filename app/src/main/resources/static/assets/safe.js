// The safe part of sliders and lists: what makes a text hard to read is striped, as in the field of colours, and said in words.
import { data } from "./answers.js";
import { say } from "./say.js";

const SVG = "http://www.w3.org/2000/svg";
const drawn = (name, attributes) => {
  const e = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) e.setAttribute(key, value);
  return e;
};

// From and to of what is not safe of a slider, in percent of its way.
export function unsafe(spans, from, to) {
  const share = (n) => ((n - from) / (to - from)) * 100;
  const all = [];
  let at = from;
  for (const [start, end] of spans) {
    if (start > at) all.push([share(at), share(start)]);
    at = end;
  }
  if (at < to) all.push([share(at), 100]);
  return all;
}

// Stripes what is not safe of a slider.
export function striped(range, spans) {
  const picture = drawn("svg", { class: "safe-part", "aria-hidden": "true" });
  const stripes = drawn("pattern", { id: `stripes-${++patterns}`, width: 4, height: 4, patternUnits: "userSpaceOnUse", patternTransform: "rotate(45)" });
  stripes.append(drawn("path", { d: "M0 0V4" }));
  picture.append(stripes);
  // Where there is a whole, the allowed part of it alone is judged.
  const [least, most] = [Number(range.min), Number(range.max)];
  const [from, to] = [Number(range.dataset.from ?? least), Number(range.dataset.to ?? most)];
  const share = (n) => ((from + (n / 100) * (to - from) - least) / (most - least)) * 100;
  const place = (kind, start, end, more) => picture.append(drawn("rect", { class: kind, x: `${start}%`, width: `${end - start}%`, ...more }));
  place("not-allowed", 0, 100);
  place("safe", share(0), share(100));
  for (const [start, end] of unsafe(spans, from, to)) {
    place("ground", share(start), share(end));
    place("unsafe", share(start), share(end), { fill: `url(#${stripes.id})` });
  }
  range.parentElement.append(picture);
}

function list(form, hard) {
  for (const field of form.querySelectorAll("input[type=radio]")) {
    const said = hard[field.value];
    if (!said) continue;
    const label = field.closest("label");
    label.classList.add("unsafe");
    label.title = said;
    field.setAttribute("aria-description", said);
  }
  for (const option of form.querySelectorAll("select option")) {
    if (!hard[option.value]) continue;
    option.dataset.plain = option.textContent;
    option.textContent = say("safe.option", option.textContent);
  }
}

function clear(form) {
  form.querySelectorAll(".safe-part, [data-safe-said]").forEach((e) => e.remove());
  for (const label of form.querySelectorAll("label.unsafe")) {
    label.classList.remove("unsafe");
    label.removeAttribute("title");
    label.querySelector("input").removeAttribute("aria-description");
  }
  for (const option of form.querySelectorAll("option[data-plain]")) {
    option.textContent = option.dataset.plain;
    delete option.dataset.plain;
  }
}

function draw(form, part) {
  clear(form);
  if (!part) return;
  if (Object.keys(part.hard).length) list(form, part.hard);
  else {
    const range = form.querySelector(".slide input[type=range]");
    if (range) striped(range, part.safe);
  }
  const line = document.createElement("p");
  line.className = "small quiet mb-0";
  line.dataset.safeSaid = "";
  line.id = `safe-${part.key}-${part.band}`;
  line.textContent = part.said;
  form.append(line);
  form.querySelector("[data-number], [data-any]")?.setAttribute("aria-describedby", line.id);
}

let turn = 0;
let patterns = 0;
// Asks once for all forms; each is known by the key of its setting and its band. @param drawnAt where a form has its control
export async function safeParts(address, forms, { drawnAt = (form) => form } = {}) {
  const mine = ++turn;
  const parts = await data(await fetch(address, { headers: { Accept: "application/json" } }).catch(() => null));
  if (!parts || mine !== turn) return;
  for (const form of forms()) {
    const [key, band] = [form.elements.key?.value, form.elements.band?.value ?? ""];
    draw(drawnAt(form), parts.find((p) => p.key === key && p.band === band));
  }
}
