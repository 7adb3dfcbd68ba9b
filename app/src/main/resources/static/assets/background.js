// Two elements that stand beside the fields of a form and say the same as those: the box of a background with its picture to
// take hold of, and the bar of a gradient with its colours. Whatever is moved is written into the fields, which the form sends.
import { shownBoxes } from "./frames.js";
import { VALUE, placed, px, reading, tiles } from "./placing.js";
import { say } from "./say.js";

const NS = "http://www.w3.org/2000/svg";
function rectangle(svg, kind, [x, y], [width, height]) {
  const r = document.createElementNS(NS, "rect");
  for (const [name, value] of Object.entries({ class: kind, x, y, width: Math.max(0, width), height: Math.max(0, height) })) r.setAttribute(name, value);
  svg.append(r);
}
const clamp = (v, least, most) => Math.min(most, Math.max(least, v));
const tidy = (v) => String(Math.round(v * 10) / 10);
const HEIGHT = 190;
const MARGIN = 20;
const SNAP = 2;

class BackgroundBox extends HTMLElement {
  connectedCallback() {
    if (this.stage) return;
    const { fixed, pictures } = JSON.parse(this.dataset.box);
    Object.assign(this, { fixed, pictures, form: this.closest("form") });
    this.stage = document.createElement("div");
    this.stage.className = "box-stage";
    this.ghost = new Image();
    this.ghost.className = "box-ghost";
    this.ghost.alt = "";
    this.ghost.draggable = false;
    this.painted = document.createElement("div");
    this.painted.className = "box-painted";
    this.lines = document.createElementNS(NS, "svg");
    this.lines.setAttribute("aria-hidden", "true");
    this.stage.append(this.ghost, this.painted, this.lines);
    this.reading = document.createElement("p");
    this.reading.className = "small quiet mb-0";
    this.append(this.stage, this.reading);
    if (this.free("position")) this.holdable();
    this.listen = () => this.draw();
    this.form.addEventListener("input", this.listen);
    this.form.addEventListener("change", this.listen);
    addEventListener("calm:shown", this.listen);
    this.watching = new ResizeObserver(this.listen);
    this.watching.observe(this);
    this.draw();
  }

  disconnectedCallback() {
    removeEventListener("calm:shown", this.listen);
    this.watching?.disconnect();
  }

  free(part) {
    return !(part in this.fixed);
  }

  field(part) {
    return this.form.elements[`${this.dataset.field}.${part}`];
  }

  part(part) {
    return this.fixed[part] ?? this.field(part)?.value?.trim() ?? "";
  }

  // The box that the setting paints: of the frame in whose band this value holds, else of the widest.
  where() {
    const band = this.form.elements.band?.value ?? (/^b\.([^.]+)$/.exec(this.dataset.field) || [])[1] ?? "";
    const boxes = shownBoxes();
    const own = band && boxes.filter((b) => b.band === band);
    return (own?.length ? own : boxes).at(-1) ?? { width: 1440, window: [1440, 900], box: [1440, 480] };
  }

  draw() {
    const picture = this.pictures[this.part("picture")];
    const { width, window: view, box: measured } = this.where();
    const values = { position: this.part("position"), size: this.part("size"), repeat: this.part("repeat") };
    const box = this.part("attachment") === "fixed" ? view : measured;
    const known = picture?.width > 0 && box[0] > 0 && box[1] > 0
      && reading(values.position)
      && values.size.split(/\s+/).every((v) => /^(cover|contain|auto)$/.test(v) || VALUE.test(v));
    this.stage.hidden = !known || !this.clientWidth;
    this.reading.hidden = !known;
    if (this.stage.hidden) return;
    const p = placed(values, [picture.width, picture.height], box, view);
    const scale = Math.min((this.clientWidth - 2 * MARGIN) / box[0], HEIGHT / box[1]);
    const left = (this.clientWidth - box[0] * scale) / 2;
    const on = ([x, y]) => [left + x * scale, MARGIN + y * scale];
    const by = ([w, h]) => [w * scale, h * scale];
    this.stage.style.height = `${box[1] * scale + 2 * MARGIN}px`;
    Object.assign(this, { now: p, box, scale });
    this.show(picture, p, { left, on, by });
    this.outline(picture, p, { on, by });
    this.say(picture, p, width, values);
  }

  show(picture, p, { left, on, by }) {
    if (this.ghost.getAttribute("src") !== picture.address) this.ghost.src = picture.address;
    const [x, y] = on(p.at);
    const [w, h] = by(p.tile);
    Object.assign(this.ghost.style, { left: `${x}px`, top: `${y}px`, width: `${w}px`, height: `${h}px` });
    const strength = Number(this.part("strength")) || 0;
    const shade = `color-mix(in srgb, ${this.part("overlay")} ${clamp(strength, 0, 100)}%, transparent)`;
    Object.assign(this.painted.style, { left: `${left}px`, top: `${MARGIN}px`, width: `${this.box[0]}px`, height: `${this.box[1]}px`, transform: `scale(${this.scale})` });
    const paint = this.painted.style;
    paint.background = "";
    paint.backgroundColor = this.part("color");
    paint.backgroundImage = `${strength > 0 ? `linear-gradient(${shade}, ${shade}), ` : ""}url("${picture.address.replace(/["\\\n]/g, encodeURIComponent)}")`;
    const layers = (v) => (strength > 0 ? `0 0, ${v}` : v);
    paint.backgroundPosition = layers(this.part("position"));
    paint.backgroundSize = strength > 0 ? `auto, ${p.tile[0]}px ${p.tile[1]}px` : `${p.tile[0]}px ${p.tile[1]}px`;
    paint.backgroundRepeat = strength > 0 ? `repeat, ${this.part("repeat")}` : this.part("repeat");
  }

  outline(picture, p, { on, by }) {
    this.lines.replaceChildren();
    const all = tiles(p, this.box);
    for (const at of all) rectangle(this.lines, "tile", on(at), by(p.tile));
    rectangle(this.lines, "edge", on([0, 0]), by(this.box));
    if (!picture.subject) return;
    const [l, t, w, h] = picture.subject.map((v) => v / 100);
    for (const kind of ["kept-part", "kept-part within"]) rectangle(this.lines, kind, on([p.at[0] + l * p.tile[0], p.at[1] + t * p.tile[1]]), by([w * p.tile[0], h * p.tile[1]]));
  }

  say(picture, p, width, values) {
    const seen = [0, 1].map((i) => (p.many[i] ? Math.min(p.tile[i], this.box[i]) : Math.max(0, Math.min(p.at[i] + p.tile[i], this.box[i]) - Math.max(p.at[i], 0))) / p.tile[i]);
    const share = Math.round(100 * Math.min(1, seen[0]) * Math.min(1, seen[1]));
    const drawn = p.tile[0] / picture.width;
    const moves = this.moves();
    const fills = !moves[0] && !moves[1] ? say("box.exact")
      : moves[0] && !moves[1] ? say("box.height") : moves[1] && !moves[0] ? say("box.width") : "";
    this.reading.textContent = [
      drawn > 1.005 ? say("box.shows.large", width, share, Math.round(100 * drawn)) : say("box.shows", width, share),
      this.subject(picture, p),
      this.free("position") && values.repeat === "no-repeat" ? fills : "",
    ].filter(Boolean).join(" ");
    // Hundredths of the way across, as a slider has one number; the text says both.
    this.stage.setAttribute("aria-valuenow", moves[0] ? Math.round(clamp(100 * p.at[0] / (this.box[0] - p.tile[0]), 0, 100)) : 50);
    this.stage.setAttribute("aria-valuetext", say("box.value", values.position, share));
  }

  // Of what must stay in sight: whether the box shows it. What lies over the box is told by the view of pictures.
  subject(picture, { at, tile, many }) {
    if (!picture.subject || many.some(Boolean)) return "";
    const ends = [0, 1].map((i) => {
      const from = at[i] + picture.subject[i] / 100 * tile[i];
      return [from, from + picture.subject[i + 2] / 100 * tile[i]];
    });
    const whole = ends.every(([from, to], i) => from >= -0.5 && to <= this.box[i] + 0.5);
    const outside = ends.some(([from, to], i) => to <= 0 || from >= this.box[i]);
    const name = picture.name[0].toUpperCase() + picture.name.slice(1);
    return say(whole ? "box.whole" : outside ? "box.outside" : "box.cut", name);
  }

  moves() {
    return [0, 1].map((i) => Math.abs(this.box[i] - this.now.tile[i]) >= 1);
  }

  // Dragging and arrow keys. A position in percent stays one, so it fits every width; one in px stays one.
  holdable() {
    const stage = this.stage;
    Object.assign(stage, { tabIndex: 0, role: "slider" });
    stage.classList.add("can-move");
    stage.setAttribute("aria-label", say("box.position", this.dataset.name));
    let from = null;
    stage.addEventListener("pointerdown", (event) => {
      // Beside the picture and its box a finger scrolls the page.
      if (event.button !== 0 || event.target === stage) return;
      event.preventDefault();
      stage.focus({ preventScroll: true });
      stage.setPointerCapture(event.pointerId);
      from = { x: event.clientX, y: event.clientY, at: [...this.now.at] };
    });
    stage.addEventListener("pointermove", (event) => {
      if (from) this.moveTo([from.at[0] + (event.clientX - from.x) / this.scale, from.at[1] + (event.clientY - from.y) / this.scale], SNAP);
    });
    const end = () => { if (from) { from = null; this.done(); } };
    stage.addEventListener("pointerup", end);
    stage.addEventListener("pointercancel", end);
    stage.addEventListener("keydown", (event) => {
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (!by || event.altKey || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      const steps = event.shiftKey ? 10 : 1;
      // A key moves the picture the way the arrow points, by hundredths of what is left to move.
      this.moveTo([0, 1].map((i) => {
        const left = this.box[i] - this.now.tile[i];
        return this.now.at[i] + by[i] * steps * (this.unit(i) === "px" ? 1 : Math.abs(left) / 100);
      }), 0);
    });
    stage.addEventListener("keyup", (event) => { if (event.key.startsWith("Arrow")) this.done(); });
  }

  unit(i) {
    const [, , unit] = VALUE.exec(reading(this.part("position"))[i].at) || [];
    return unit && unit !== "%" ? "px" : "%";
  }

  moveTo(at, snap) {
    const moves = this.moves();
    const before = reading(this.part("position"));
    // What is reckoned from the end is moved from there too: the other way round.
    const four = before.some((b) => b.fromEnd) || this.part("position").trim().split(/\s+/).length === 4;
    const from = (i) => (four ? `${[["left", "right"], ["top", "bottom"]][i][before[i].fromEnd ? 1 : 0]} ` : "");
    const after = [0, 1].map((i) => {
      const room = this.box[i] - this.now.tile[i];
      if (!moves[i] && this.unit(i) === "%") return from(i) + before[i].at;
      if (this.unit(i) === "px") return `${from(i)}${Math.round(before[i].fromEnd ? room - at[i] : at[i])}px`;
      if (four) return `${from(i)}${tidy(clamp(100 * (before[i].fromEnd ? room - at[i] : at[i]) / room, 0, 100))}%`;
      const share = clamp(100 * at[i] / (this.box[i] - this.now.tile[i]), 0, 100);
      const near = [0, 50, 100].find((v) => Math.abs(v - share) <= snap || tidy(share) === tidy(v));
      return near === undefined ? `${tidy(share)}%` : [["left", "center", "right"], ["top", "center", "bottom"]][i][near / 50];
    });
    const field = this.field("position");
    if (field.value === after.join(" ")) return;
    field.value = after.join(" ");
    this.changed = true;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  done() {
    if (!this.changed) return;
    this.changed = false;
    this.field("position").dispatchEvent(new Event("change", { bubbles: true }));
  }
}

// The bar of a gradient: its colours stand where they begin to hold, and are moved, added and taken away there.
const BAR_STEP = 1;
class GradientBar extends HTMLElement {
  connectedCallback() {
    if (this.bar) return;
    this.rows = [...this.parentElement.querySelectorAll(".any")];
    this.bar = document.createElement("div");
    this.bar.className = "gradient-bar";
    this.bar.title = say("gradient.add");
    this.append(this.bar);
    this.bar.addEventListener("click", (event) => { if (event.target === this.bar) this.add(this.share(event)); });
    this.parentElement.addEventListener("input", () => { if (!this.held) this.draw(); });
    this.parentElement.addEventListener("change", () => { if (!this.held) this.draw(); });
    this.draw();
  }

  share(event) {
    const { left, width } = this.bar.getBoundingClientRect();
    return clamp(Math.round(100 * (event.clientX - left) / width), 0, 100);
  }

  stops() {
    return this.rows.map((row) => ({ row, color: row.querySelector("[data-any]"), at: row.querySelector(".at") }))
      .filter(({ color, at }) => color.value.trim() && CSS.supports("color", color.value.trim()) && at.value.trim() !== "" && Number.isFinite(Number(at.value.replace("%", ""))))
      .map((s) => ({ ...s, value: clamp(Number(s.at.value.replace("%", "")), 0, 100) }))
      .sort((a, b) => a.value - b.value);
  }

  // A form keeps the order of its fields, and colours are drawn in that order; so they are written in the order in which they stand.
  draw(focused = null) {
    const stops = this.stops();
    this.bar.style.background = stops.length > 1 ? `linear-gradient(to right, ${stops.map((s) => `${s.color.value} ${s.value}%`).join(", ")})` : "";
    // A handle that is about to be pressed is not put there anew for nothing.
    const drawn = stops.map((s) => `${this.rows.indexOf(s.row)} ${s.color.value} ${s.value}`).join();
    if (drawn !== this.drawn) this.bar.replaceChildren(...stops.map((s, i) => this.handle(s, i, stops.length)));
    this.drawn = drawn;
    if (focused !== null) this.bar.children[focused]?.focus();
  }

  handle(stop, i, all) {
    const handle = document.createElement("button");
    Object.assign(handle, { type: "button", className: "stop", role: "slider", ariaValueMin: "0", ariaValueMax: "100" });
    const place = () => {
      handle.style.left = `${stop.value}%`;
      handle.ariaValueNow = String(stop.value);
      handle.ariaValueText = `${stop.value}%`;
    };
    handle.setAttribute("aria-label", say("gradient.stop", i + 1, this.dataset.name, stop.color.value));
    handle.style.setProperty("--stop", stop.color.value);
    place();
    const move = (value) => {
      stop.value = clamp(value, 0, 100);
      stop.at.value = String(stop.value);
      place();
      this.paint();
      stop.at.dispatchEvent(new Event("input", { bubbles: true }));
    };
    const done = () => {
      const moved = this.held;
      this.held = false;
      if (!moved) return;
      this.order();
      this.draw(this.stops().findIndex((s) => s.value === stop.value && s.color.value === handle.style.getPropertyValue("--stop")));
    };
    handle.addEventListener("pointerdown", (event) => {
      if (event.button !== 0) return;
      handle.setPointerCapture(event.pointerId);
      handle.moving = true;
    });
    handle.addEventListener("pointermove", (event) => {
      if (!handle.moving || this.share(event) === stop.value) return;
      this.held = true;
      move(this.share(event));
    });
    for (const over of ["pointerup", "pointercancel"]) {
      handle.addEventListener(over, () => {
        handle.moving = false;
        done();
      });
    }
    handle.addEventListener("keydown", (event) => {
      const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
      if (by) {
        event.preventDefault();
        this.held = true;
        move(stop.value + by * (event.shiftKey ? 10 : BAR_STEP));
      } else if (event.key === "Delete" || event.key === "Backspace") {
        event.preventDefault();
        if (all > 2) this.remove(stop, i);
      } else if (event.key === "Enter" || event.key === " ") {
        event.preventDefault();
        stop.row.hidden = false;
        stop.color.focus();
      }
    });
    handle.addEventListener("keyup", (event) => { if (event.key.startsWith("Arrow")) done(); });
    handle.addEventListener("dblclick", () => stop.color.focus());
    return handle;
  }

  paint() {
    const stops = this.stops();
    this.bar.style.background = `linear-gradient(to right, ${stops.map((s) => `${s.color.value} ${s.value}%`).join(", ")})`;
  }

  // Writes the colours into the rows from the first on, in the order in which they stand.
  write(list) {
    this.rows.forEach((row, i) => {
      const color = row.querySelector("[data-any]");
      color.value = list[i]?.color ?? "";
      row.querySelector(".at").value = list[i]?.at ?? "";
      if (/^#[0-9a-f]{6}/i.test(color.value)) row.querySelector("[data-picks-next]").value = color.value.slice(0, 7);
      row.hidden = !list[i] && i > 1;
    });
    const more = this.parentElement.querySelector("[data-one-more]");
    if (more) more.hidden = list.length >= this.rows.length;
  }

  order() {
    this.write(this.stops().map((s) => ({ color: s.color.value, at: String(s.value) })));
    this.tell();
  }

  tell() {
    const field = this.rows[0].querySelector("[data-any]");
    field.dispatchEvent(new Event("input", { bubbles: true }));
    field.dispatchEvent(new Event("change", { bubbles: true }));
  }

  add(at) {
    const stops = this.stops();
    if (stops.length >= this.rows.length || stops.length < 2) return;
    const after = stops.findIndex((s) => s.value > at);
    const [a, b] = [stops[after < 0 ? stops.length - 1 : Math.max(0, after - 1)], stops[after < 0 ? stops.length - 1 : after]];
    const share = b.value === a.value ? 0 : clamp((at - a.value) / (b.value - a.value), 0, 1);
    const list = [...stops.map((s) => ({ color: s.color.value, at: String(s.value) })), { color: this.between(a.color.value, b.color.value, share), at: String(at) }]
      .sort((x, y) => x.at - y.at);
    this.write(list);
    this.tell();
    this.draw(list.findIndex((s) => s.at === String(at)));
  }

  // The colour that the bar shows there, as the browser mixes it.
  between(a, b, share) {
    const probe = document.createElement("i");
    probe.style.color = `color-mix(in srgb, ${a} ${(1 - share) * 100}%, ${b})`;
    this.append(probe);
    const [r, g, bl, alpha = "1"] = getComputedStyle(probe).color.match(/-?[\d.]+(?:e-?\d+)?/g);
    probe.remove();
    const hex = (v) => Math.round(clamp(v * 255, 0, 255)).toString(16).padStart(2, "0");
    return `#${hex(r)}${hex(g)}${hex(bl)}${Number(alpha) < 1 ? hex(alpha) : ""}`;
  }

  remove(stop, i) {
    this.write(this.stops().filter((s) => s.row !== stop.row).map((s) => ({ color: s.color.value, at: String(s.value) })));
    this.tell();
    this.draw(Math.max(0, i - 1));
  }
}

customElements.define("calm-background", BackgroundBox);
customElements.define("calm-gradient", GradientBar);
