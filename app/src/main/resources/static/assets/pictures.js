// The view of pictures: measures pages that nobody measured, moves along the widths, and moves the box over the subject.
import { measureMissing, measured } from "./measure.js";
import { subjectBox } from "./subject.js";

const view = document.querySelector(".gallery");
let touched = false;
for (const kind of ["input", "keydown", "pointerdown"]) {
  document.querySelector("main")?.addEventListener(kind, (event) => { touched ||= kind === "input" || Boolean(event.target.closest("form, [data-subject], [data-image], details")); });
}

// First the page that is looked at, then the others in the background.
async function measureAll() {
  const first = document.querySelector("[data-measuring]");
  if (!first) return measureMissing(view).catch(() => {});
  try {
    await measured(view, first.dataset.page, (n) => { first.querySelector("[data-measured]").textContent = n; });
    // Nothing that somebody is at is taken away from them.
    if (!touched) return location.reload();
    first.innerHTML = '<p class="notice notice-kept">Measured. <a href="">Show what the windows show of it</a>; what is not kept on this page goes then.</p>';
  } catch (problem) {
    const line = first.querySelector("[data-measure-problem]");
    line.textContent = problem.message;
    line.hidden = false;
    first.querySelector("[data-measure-progress]").remove();
  }
}

// Moving along the widths: all numbers are in the page, nothing is asked for.
const WORDS = ["is seen whole", "is cut at an edge", "is covered", "is outside"];
const scrub = document.querySelector("[data-scrub]");
function at(points, width) {
  let i = points.findIndex((p) => p[0] >= width);
  if (i < 0) i = points.length - 1;
  const [a, b] = [points[Math.max(0, i - 1)], points[i]];
  if (!b || b[0] === width || a[0] === b[0] || b[7] !== a[7]) return b && b[0] === width ? b : a;
  const share = (width - a[0]) / (b[0] - a[0]);
  return a.map((v, k) => (k === 7 ? v : v + (b[k] - v) * share));
}
function read() {
  const width = Number(scrub.value);
  document.querySelectorAll("[data-points]").forEach((figure) => {
    const cursor = figure.querySelector("[data-cursor]");
    const x = 46 + ((width - 320) / 2240) * 500;
    cursor.setAttribute("x1", x);
    cursor.setAttribute("x2", x);
    cursor.removeAttribute("hidden");
  });
  const figure = document.querySelector("[data-sweep]");
  const points = figure.points ||= JSON.parse(figure.dataset.points);
  const p = points.length ? at(points, width) : null;
  const name = figure.dataset.subjectWords;
  const picture = !p || p[1] < 0 ? "no picture" : p[1] <= 0.5 && p[2] >= width - 0.5 ? "the picture from edge to edge" : `the picture from ${Math.round(p[1])} to ${Math.round(p[2])}`;
  document.querySelector("[data-reading]").textContent = `${width} px: ${picture}`
    + (p && name ? `; ${name} ${WORDS[p[7]]}${p[7] === 1 || p[7] === 2 ? `, ${Math.round(p[8])}% of it seen` : ""}` : "") + ".";
  if (showing) fit(width);
}

// The page itself at that width, in place of the picture.
const frame = document.querySelector("[data-frame]");
const stage = document.querySelector("[data-stage]");
const toggle = document.querySelector("[data-show-page]");
let showing = false;
function fit(width) {
  const room = stage.clientWidth;
  const scale = Math.min(1, room / width);
  const height = Math.min(stage.clientWidth * 0.5625, 340);
  frame.style.width = `${width}px`;
  frame.style.height = `${Math.round(height / scale)}px`;
  frame.style.transform = `scale(${scale})`;
  frame.parentElement.style.width = `${width * scale}px`;
  frame.parentElement.style.height = `${height}px`;
}
toggle?.addEventListener("click", () => {
  showing = !showing;
  toggle.setAttribute("aria-pressed", showing);
  document.querySelector("[data-picture]").hidden = showing;
  frame.parentElement.hidden = !showing;
  if (showing && !frame.src) {
    const page = document.querySelector("[data-try] [name=page]").value;
    frame.src = view.dataset.base + page.split("/").map(encodeURIComponent).join("/");
  }
  read();
});
// The page as it is until its pictures have come, or if they never come.
const bare = document.querySelector("[data-bare]");
const sayBare = () => frame.contentWindow?.postMessage({ type: "without", css: bare.ariaPressed === "true" ? "*,*::before,*::after{background-image:none!important}img,video,picture,svg{visibility:hidden!important}" : "" }, "*");
bare?.addEventListener("click", () => {
  bare.ariaPressed = String(bare.ariaPressed !== "true");
  if (!showing) toggle.click();
  sayBare();
});
addEventListener("message", ({ source, data }) => { if (bare && source === frame.contentWindow && data?.type === "ready") sayBare(); });
if (scrub) {
  scrub.addEventListener("input", read);
  read();
  document.addEventListener("htmx:afterSwap", () => read());
  document.querySelectorAll(".look-sweep").forEach((section) => section.addEventListener("pointermove", (event) => {
    const drawing = event.target.closest?.(".drawing");
    if (!drawing || event.pointerType === "touch") return;
    const box = drawing.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * 560;
    if (x < 46 || x > 546) return;
    scrub.value = Math.round(320 + ((x - 46) / 500) * 2240);
    read();
  }));
}
for (const field of document.querySelectorAll("[data-add]")) {
  field.addEventListener("change", () => field.form.requestSubmit());
}
document.querySelector("[data-choose]")?.addEventListener("change", (event) => event.currentTarget.submit());

subjectBox(document.querySelector("[data-subject-form]"), document.querySelector("[data-image]"), document.querySelector("[data-subject]"));

// What the usual windows show of the picture, drawn over it. Their numbers stand one below the other where parts end at one point.
document.querySelectorAll("[data-crop]").forEach((crop, i) => {
  const [left, top, width, height] = crop.dataset.box.split(" ");
  Object.assign(crop.style, { left: `${left}%`, top: `${top}%`, width: `${width}%`, height: `${height}%` });
  crop.firstElementChild.style.top = `${i * 1.25}rem`;
});

if (view) measureAll();

// A part for one band: what its windows show at most, for a dense screen, as far as the picture has the pixels.
// What somebody wrote stays.
let filled = "";
document.querySelector("[data-slots]")?.addEventListener("change", (event) => {
  const { width = "", height = "" } = event.target.selectedOptions[0].dataset;
  const fields = event.target.form.elements;
  if (fields.width.value + fields.height.value !== filled) return;
  fields.width.value = width === "0" ? "" : width;
  fields.height.value = height === "0" ? "" : height;
  filled = fields.width.value + fields.height.value;
});
