// A field of colours beside a colour's input: hue from left to right, lightness from bottom to top. What is not safe is striped, what
// is not allowed grey; both come from the server for the strength that the field has. It follows the hand and the arrow keys.
import { data } from "./answers.js";
import { fromHsl, toHsl, withAlpha, written } from "./color.js";
import { say } from "./say.js";

const clamp = (n, from, to) => Math.max(from, Math.min(to, n));
let count = 0;
const escaped = (text) => text.replace(/[&<]/g, (c) => (c === "&" ? "&amp;" : "&lt;"));

// From and to of what is not in the given spans.
const gaps = (spans) => {
  const all = [];
  let from = 0;
  for (const [start, end] of spans) {
    if (start > from) all.push([from, start]);
    from = end;
  }
  if (from < 100) all.push([from, 100]);
  return all;
};

// Shapes that cover the gaps of all columns: neighbours with as many gaps are joined smoothly.
function shapes(columns, width, height) {
  const x = (i) => (i / (columns.length - 1)) * width;
  const y = (lightness) => ((100 - lightness) / 100) * height;
  let path = "";
  for (let i = 0; i < columns.length;) {
    let j = i;
    while (j + 1 < columns.length && columns[j + 1].length === columns[i].length) j++;
    const left = i === 0 ? 0 : (x(i - 1) + x(i)) / 2;
    const right = j === columns.length - 1 ? width : (x(j) + x(j + 1)) / 2;
    for (let k = 0; k < columns[i].length; k++) {
      const at = [[left, columns[i][k]], ...columns.slice(i, j + 1).map((c, n) => [x(i + n), c[k]]), [right, columns[j][k]]];
      path += "M" + at.map(([px, [, to]]) => `${px.toFixed(1)} ${y(to).toFixed(1)}`).join("L")
        + "L" + at.reverse().map(([px, [from]]) => `${px.toFixed(1)} ${y(from).toFixed(1)}`).join("L") + "Z";
    }
    i = j + 1;
  }
  return path;
}

class Field extends HTMLElement {
  connectedCallback() {
    const id = `field-${++count}`;
    this.innerHTML = `<div class="field-plane"><canvas width="360" height="101" aria-hidden="true"></canvas>
      <svg aria-hidden="true"><defs><pattern id="${id}" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><path d="M0 0V7" stroke="#1c1e20" stroke-width="1.6"/></pattern></defs>
      <path class="field-not"/><path class="field-veil"/><path fill="url(#${id})" class="field-unsafe"/></svg>
      <span class="field-point" role="slider" tabindex="0" aria-valuemin="0" aria-valuemax="100"></span></div>
      <label class="field-slide">${escaped(say("field.strength"))} <input type="range" min="0" max="100" step="1" data-strength></label>
      <label class="field-slide" data-clear hidden>${escaped(say("field.through"))} <input type="range" min="0" max="100" step="1" data-through></label>
      <p class="small quiet mb-0" data-legend></p><p class="small mb-0" data-said aria-live="polite"></p>`;
    [this.plane, this.canvas, this.svg, this.point] = [".field-plane", "canvas", "svg", ".field-point"].map((s) => this.querySelector(s));
    [this.strength, this.through] = ["[data-strength]", "[data-through]"].map((s) => this.querySelector(s));
    this.point.setAttribute("aria-label", this.getAttribute("label"));
    for (const [slide, word] of Object.entries({ "[data-strength]": "field.strength", "[data-through]": "field.through" })) {
      this.querySelector(slide).setAttribute("aria-label", say("of", say(word), this.getAttribute("label")));
    }
    this.querySelector("[data-clear]").hidden = this.hasAttribute("data-opaque");
    this.follow = (event) => { if (event.target === this.input && !this.leads) this.read(); };
    this.form.addEventListener("input", this.follow);
    this.hear();
    this.sized = new ResizeObserver(() => { if (this.plane.clientWidth) this.begin(); });
    this.sized.observe(this.plane);
  }

  disconnectedCallback() { this.sized?.disconnect(); this.form?.removeEventListener("input", this.follow); }

  get form() { return this.closest("form"); }

  get input() { return this.form.querySelector("[data-any]"); }

  // Only what is seen is asked for: a field may stand in what is closed.
  begin() {
    if (this.answer) return this.draw();
    if (!this.begun) { this.begun = true; this.read(); }
  }

  read() {
    const color = written(this.input.value);
    if (!color || !this.begun) return;
    this.alpha = color.alpha;
    const [hue, saturation, lightness] = toHsl(color);
    // Grey has no hue, black and white no strength: what was there before stays.
    const plain = saturation < 1 || lightness < 1 || lightness > 99;
    this.hue = plain && this.hue !== undefined ? this.hue : hue;
    this.lightness = lightness;
    if (this.saturation === undefined || !plain) this.saturation = saturation;
    this.strength.value = Math.round(this.saturation);
    this.through.value = Math.round(100 - this.alpha * 100);
    this.show();
    this.ask();
  }

  // What is shown is written into the field beside it, which everything else follows.
  write(done = false) {
    const value = withAlpha(fromHsl(this.hue, this.saturation, this.lightness), this.alpha);
    this.show();
    this.leads = true;
    if (this.input.value !== value) {
      this.input.value = value;
      this.input.dispatchEvent(new Event("input", { bubbles: true }));
    }
    if (done) this.input.dispatchEvent(new Event("change", { bubbles: true }));
    this.leads = false;
    this.ask();
  }

  show() {
    this.point.style.left = `${(this.hue / 360) * 100}%`;
    this.point.style.top = `${100 - this.lightness}%`;
    const color = fromHsl(this.hue, this.saturation, this.lightness);
    this.point.style.background = color;
    this.point.setAttribute("aria-valuenow", Math.round(this.lightness));
    this.point.setAttribute("aria-valuetext", say("field.lightness", color, Math.round(this.lightness), Math.round(this.hue)));
    if (this.painted !== this.saturation) this.paint();
  }

  paint() {
    this.painted = this.saturation;
    const context = this.canvas.getContext("2d");
    for (let hue = 0; hue < 360; hue++) {
      // Of one hue and strength the colours lie on two straight lines, from black and to white.
      const column = context.createLinearGradient(0, 0, 0, 101);
      column.addColorStop(0, "#ffffff");
      column.addColorStop(0.5, fromHsl(hue, this.saturation, 50));
      column.addColorStop(1, "#000000");
      context.fillStyle = column;
      context.fillRect(hue, 0, 1, 101);
    }
  }

  ask() {
    clearTimeout(this.soon);
    this.soon = setTimeout(async () => {
      const saturation = Math.round(this.saturation);
      const turn = this.turn = (this.turn ?? 0) + 1;
      const query = new URLSearchParams({ key: this.dataset.for, at: this.input.value });
      const stale = this.drawn !== saturation || this.others !== this.form.dataset.was;
      if (stale) query.set("saturation", saturation);
      const answer = await fetch(`${this.dataset.area}?${query}`, { headers: { Accept: "application/json" } }).catch(() => null);
      if (turn !== this.turn || !this.isConnected) return;
      if (answer?.status === 422) this.querySelector("[data-legend]").textContent = say("field.unknown");
      const area = await data(answer);
      if (!area) return;
      if (stale) {
        this.drawn = saturation;
        this.others = this.form.dataset.was;
        this.answer = area;
        this.draw();
      }
      this.querySelector("[data-legend]").textContent = area.legend;
      const said = this.querySelector("[data-said]");
      said.textContent = area.said;
      said.className = `small mb-0 ${area.state ? `state-${area.state}` : ""}`;
      this.point.setAttribute("aria-valuetext", `${this.point.getAttribute("aria-valuetext").split(". ")[0]}. ${area.said}`);
    }, 120);
  }

  draw() {
    const [width, height] = [this.plane.clientWidth, this.plane.clientHeight];
    this.svg.setAttribute("viewBox", `0 0 ${width} ${height}`);
    const path = (name, columns) => this.svg.querySelector(name).setAttribute("d", columns.length ? shapes(columns.map(gaps), width, height) : "");
    path(".field-not", this.answer.allowed);
    path(".field-veil", this.answer.safe);
    path(".field-unsafe", this.answer.safe);
  }

  hear() {
    const to = (event) => {
      const box = this.plane.getBoundingClientRect();
      this.hue = clamp(((event.clientX - box.left) / box.width) * 360, 0, 359.9);
      this.lightness = clamp(100 - ((event.clientY - box.top) / box.height) * 100, 0, 100);
      cancelAnimationFrame(this.frame);
      this.frame = requestAnimationFrame(() => this.write());
    };
    this.plane.addEventListener("pointerdown", (event) => {
      if (event.button) return;
      event.preventDefault();
      this.plane.setPointerCapture(event.pointerId);
      this.point.focus({ preventScroll: true });
      this.held = true;
      to(event);
    });
    this.plane.addEventListener("pointermove", (event) => { if (this.held) to(event); });
    for (const end of ["pointerup", "pointercancel"]) {
      this.plane.addEventListener(end, () => {
        if (!this.held) return;
        this.held = false;
        cancelAnimationFrame(this.frame);
        this.write(true);
      });
    }
    this.point.addEventListener("keydown", (event) => {
      const far = event.shiftKey ? 10 : 1;
      const [hue, lightness] = { ArrowLeft: [-far, 0], ArrowRight: [far, 0], ArrowUp: [0, far], ArrowDown: [0, -far],
        PageUp: [0, 10], PageDown: [0, -10], Home: [0, -100], End: [0, 100] }[event.key] ?? [0, 0];
      if (!hue && !lightness) return;
      event.preventDefault();
      event.stopPropagation();
      this.hue = (this.hue + hue + 360) % 360;
      this.lightness = clamp(this.lightness + lightness, 0, 100);
      this.write(true);
    });
    this.strength.addEventListener("input", () => { this.saturation = Number(this.strength.value); this.write(); });
    this.strength.addEventListener("change", () => this.write(true));
    this.through.addEventListener("input", () => { this.alpha = 1 - this.through.value / 100; this.write(); });
    this.through.addEventListener("change", () => this.write(true));
    // Its own sliders are no answers of the form.
    for (const slide of [this.strength, this.through]) for (const type of ["input", "change"]) slide.addEventListener(type, (event) => event.stopPropagation());
  }
}
customElements.define("calm-field", Field);
