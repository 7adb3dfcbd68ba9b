// Frames of a page at several widths, drawn to scale. Talks to frame.js inside them; the frames have an origin of their
// own, so what comes from them is known by its window.
import { data } from "./answers.js";
import { hex, withAlpha, written } from "./color.js";
import { striped } from "./safe.js";
import { say } from "./say.js";

export class Frames {
  constructor(root, { onShown = () => {}, onOpen = () => {}, onPick = () => {}, onOpened = () => {} } = {}) {
    this.root = root;
    this.windows = [...root.querySelectorAll("iframe[data-width]")];
    this.ready = new Set();
    this.last = {};
    this.waiting = new Map();
    this.next = 1;
    this.bands = JSON.parse(root.dataset.bands || "[]");
    this.onShown = onShown;
    this.onPick = onPick;
    this.onOpened = onOpened;
    addEventListener("message", (event) => this.hear(event, onOpen));
    new ResizeObserver(() => this.fit()).observe(root);
    this.fit();
    // A frame that was there before anybody listened says once more that it is.
    this.send({ type: "hello" });
  }

  // As many frames as widths, the narrowest first; the widest one stays, others come and go beside it.
  toWidths(list) {
    while (this.windows.length > list.length) {
      const gone = this.windows.shift();
      this.ready.delete(gone);
      known.delete(gone);
      gone.parentElement.remove();
    }
    const widest = this.windows[this.windows.length - 1];
    while (this.windows.length < list.length) {
      const window = widest.parentElement.cloneNode(true);
      const frame = window.querySelector("iframe");
      delete frame.dataset.ready;
      // Before it says that it is there it has to be one of ours.
      this.windows.unshift(frame);
      this.back = this.share;
      frame.src = this.root.dataset.base + address(this.root.dataset.page);
      this.root.prepend(window);
    }
    list.forEach((width, i) => { this.windows[i].dataset.width = width; });
    this.counts = new Map();
    this.fit();
    this.again("values");
  }

  fit() {
    const room = this.root.clientWidth;
    const height = Number(this.root.dataset.height) || 280;
    const whole = this.windows.find((f) => f.closest(".full"));
    if (whole) return this.fitWhole(whole);
    const total = this.windows.reduce((sum, f) => sum + Number(f.dataset.width), 0);
    const scale = Math.min(Number(this.root.dataset.most) || 1, (room - 18 * (this.windows.length - 1) - 2 * this.windows.length) / total);
    for (const frame of this.windows) {
      const width = Number(frame.dataset.width);
      frame.width = width;
      frame.height = Math.round(height / scale);
      frame.style.transform = `scale(${scale})`;
      frame.parentElement.style.width = `${width * scale + 2}px`;
      frame.parentElement.style.height = `${height + 2}px`;
      frame.closest("figure")?.style.setProperty("width", `${width * scale + 2}px`);
    }
    this.scale = scale;
    this.again("show");
  }

  // One frame over everything else, as large as it is where there is room.
  fitWhole(frame) {
    const width = Number(frame.dataset.width);
    const scale = Math.min(1, innerWidth / width);
    frame.width = width;
    frame.height = Math.round((innerHeight - 40) / scale);
    frame.style.transform = `scale(${scale})`;
    frame.parentElement.style.width = `${width * scale}px`;
    frame.parentElement.style.height = `${innerHeight - 40}px`;
    this.scale = scale;
    this.again("show");
  }

  // The band of a frame: the first one that is not over at its width.
  band(frame) {
    return this.bandAt(Number(frame.dataset.width));
  }

  bandAt(width) {
    return this.bands.find(([, to]) => width < to + 1)?.[0] ?? "";
  }

  send(message) {
    for (const frame of this.windows) frame.contentWindow.postMessage(message, "*");
  }

  again(type) {
    const last = this.last[type];
    if (typeof last === "function") for (const frame of this.windows) frame.contentWindow.postMessage(last(frame), "*");
    else if (last) this.send(this.last[type] = { ...last, scale: this.scale });
  }

  // Values that are tried: shown in all frames at once, kept nowhere. Each frame gets what holds in its band.
  values({ css = {}, fills = {} } = {}) {
    this.last.values = (frame) => ({ type: "values", css: css[this.band(frame)] || "", fills: fills[this.band(frame)] || [] });
    for (const frame of this.windows) frame.contentWindow.postMessage(this.last.values(frame), "*");
  }

  show(marks, { color = null, reveal = true, sure = false } = {}) {
    this.counts = new Map();
    this.send(this.last.show = { type: "show", marks, color, reveal, sure, scale: this.scale });
  }

  // Whether a click asks about a part instead of following a link.
  picking(on) {
    this.send(this.last.picking = { type: "picking", on });
  }

  // Which questions a tap on a part leads to: keys with the marks of what they paint.
  askable(all) {
    this.send(this.last.askable = { type: "askable", all });
  }

  // Styles that take something away to look what else is there: kept nowhere.
  without(css) {
    this.send(this.last.without = { type: "without", css });
  }

  // Nine numbers, a matrix on linear sRGB, row by row; null for colours as they are.
  see(matrix) {
    this.send(this.last.see = { type: "see", matrix });
  }

  hide(hidden) {
    this.send(this.last.hide = { type: "hide", hidden });
  }

  // Asks the widest frame; a promise of one answer for each candidate. What lies behind texts on pictures and gradients is known to
  // the server, which has their pixels.
  async measure(candidates, probes) {
    const frame = this.windows[this.windows.length - 1];
    const id = this.next++;
    const grounds = await this.grounds(Number(frame.dataset.width));
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      frame.contentWindow.postMessage({ type: "measure", id, candidates, probes, grounds }, "*");
    });
  }

  async grounds(width) {
    if (!this.root.dataset.grounds) return {};
    const key = `${this.root.dataset.base}|${this.root.dataset.page}|${width}`;
    if (this.known?.key !== key) {
      const answer = await fetch(`${this.root.dataset.grounds}?${new URLSearchParams({ page: this.root.dataset.page, width })}`).catch(() => null);
      this.known = { key, grounds: (await data(answer)) ?? {} };
    }
    return this.known.grounds;
  }

  whenReady() {
    const widest = this.windows[this.windows.length - 1];
    if (this.ready.has(widest)) return Promise.resolve();
    return new Promise((resolve) => { (this.readyCalls ||= []).push(resolve); });
  }

  open(page, share = 0) {
    this.back = share;
    this.root.dataset.page = page;
    this.onOpened(page);
    this.ready.clear();
    this.last.values = null;
    for (const frame of this.windows) {
      delete frame.dataset.ready;
      frame.src = this.root.dataset.base + address(page);
    }
  }

  // The same page anew, at the place where one was.
  reload(base) {
    this.root.dataset.base = base;
    this.open(this.root.dataset.page, this.share);
  }

  // What the setting paints in this frame, for those who draw it.
  remember(frame, { box, window: view }) {
    const pair = (p) => Array.isArray(p) && p.length === 2 && p.every((v) => Number.isFinite(v) && v >= 0);
    if (pair(box) && pair(view)) known.set(frame, { width: Number(frame.dataset.width), band: this.band(frame), box, window: view });
    else known.delete(frame);
    dispatchEvent(new Event("calm:shown"));
  }

  hear({ source, data }, onOpen) {
    const frame = this.windows.find((f) => f.contentWindow === source);
    if (!frame || !data) return;
    if (data.type === "ready" && !this.ready.has(frame)) {
      this.ready.add(frame);
      for (const type of ["values", "without", "picking", "hide", "show", "askable", "see"]) {
        const last = typeof this.last[type] === "function" ? this.last[type](frame) : this.last[type];
        if (last) source.postMessage({ ...last, scale: this.scale }, "*");
      }
      if (this.back) source.postMessage({ type: "scroll", share: this.back }, "*");
      frame.dataset.ready = "";
      if (frame === this.windows[this.windows.length - 1]) {
        (this.readyCalls || []).forEach((call) => call());
        this.readyCalls = [];
        this.onReady?.();
      }
    }
    if (data.type === "measured") {
      this.waiting.get(data.id)?.(data.answers);
      this.waiting.delete(data.id);
    }
    if (data.type === "shown") {
      (this.counts ||= new Map()).set(Number(frame.dataset.width), data);
      this.remember(frame, data);
      this.onShown(this.counts);
    }
    if (data.type === "scrolled") this.share = Number(data.share) || 0;
    if (data.type === "scrolled" && this.root.dataset.together === "true" && typeof data.share === "number") {
      for (const other of this.windows) if (other !== frame) other.contentWindow.postMessage({ type: "scroll", share: data.share }, "*");
    }
    if (data.type === "pick" && Number.isInteger(data.at)) this.onPick(data.at, Number(frame.dataset.width), /^(background|border)$/.test(data.aspect) ? data.aspect : "");
    if (data.type === "asked" && Array.isArray(data.keys)) this.onAsked?.(data.keys.filter((k) => typeof k === "string"));
    if (data.type === "open" && typeof data.href === "string") {
      const from = new URL(address(this.root.dataset.page), "https://theme.invalid/");
      const target = new URL(data.href, from);
      if (target.host === "theme.invalid") onOpen(target.pathname.slice(1).split("/").map(plain).join("/") || "index.html");
    }
  }
}

// The boxes of what is outlined now, the narrowest window first.
const known = new Map();
export const shownBoxes = () => [...known.values()].sort((a, b) => a.width - b.width);

const address = (page) => page.split("/").map(encodeURIComponent).join("/");

// A stray percent sign is taken as it is.
function plain(segment) {
  try {
    return decodeURIComponent(segment);
  } catch {
    return segment;
  }
}

// Asks the server what a form would make of the previews; of several questions on the way only the last answer counts.
export class Asking {
  constructor(address) {
    this.address = address;
    this.turn = 0;
  }

  async ask(form, extra = {}) {
    const turn = ++this.turn;
    const body = new URLSearchParams(new FormData(form));
    for (const [name, value] of Object.entries(extra)) body.set(name, value);
    const headers = JSON.parse(document.body.getAttribute("hx-headers") || "{}");
    let answer = await fetch(this.address, { method: "POST", body, headers }).catch(() => null);
    if (answer?.status === 429) {
      await new Promise((call) => { setTimeout(call, 1000 * Number(answer.headers.get("Retry-After") || 1)); });
      if (turn !== this.turn) return null;
      answer = await fetch(this.address, { method: "POST", body, headers }).catch(() => null);
    }
    if (turn !== this.turn) return null;
    const trial = await data(answer);
    return turn === this.turn ? trial : null;
  }
}
// Pairs of fields that say the same: a picker or a slide, and the field beside it.
export function pair(event) {
  const field = event.target;
  const set = (other, value) => { if (other && other.value !== value) other.value = value; };
  // A browser's own picker knows no alpha: a colour that lets through goes on doing so.
  if (field.matches("[data-picks-next]")) {
    const any = field.parentElement.querySelector("[data-any]");
    set(any, withAlpha(field.value, written(any?.value ?? "")?.alpha ?? 1));
  }
  const amount = field.closest(".amount");
  if (field.matches("[data-slides]")) {
    // A slide over a whole stays in the part of it that is allowed.
    const { from, to } = field.dataset;
    if (from) field.value = Math.min(Number(to), Math.max(Number(from), Number(field.value)));
    set(amount.querySelector("[data-number]"), field.value);
  }
  if (field.matches("[data-number]")) set(amount.querySelector("[data-slides]"), field.value);
  const color = field.matches("[data-any]") && written(field.value);
  if (color) set(field.parentElement.querySelector("[data-picks-next]"), hex(color.r, color.g, color.b));
}
// Rows for more colours of a gradient wait until they are wanted.
export function later(root) {
  root.querySelectorAll(".gradient").forEach((g) => {
    g.querySelectorAll("[data-later]").forEach((row) => { row.hidden = true; });
    const more = g.querySelector("[data-one-more]");
    const left = () => [...g.querySelectorAll("[data-later]")].filter((r) => r.hidden);
    if (more) more.hidden = left().length === 0;
    more?.addEventListener("click", () => {
      left()[0].hidden = false;
      more.hidden = left().length === 0;
    });
  });
}

// What is said beside a background that is tried: the server has the pixels of pictures, and answers for the widest frame.
export class Behind {
  constructor(address, frames) {
    this.asking = new Asking(address);
    this.frames = frames;
  }

  async ask(form) {
    const { root, windows } = this.frames;
    const answer = await this.asking.ask(form, { page: root.dataset.page, width: windows[windows.length - 1].dataset.width });
    this.lost = answer?.lost ?? null;
    if (!answer?.worst) strengths(form, null);
    if (!answer || answer.known && !answer.texts) return null;
    if (!answer.known) return { state: "unknown", long: say("read.not-measured") };
    const said = words(answer);
    return { ...said, long: said.long + (answer.worst && answer.unknown ? ` ${say("read.others", answer.unknown)}` : "") };
  }

  // What is hard to read may need no more than a stronger shade: the weakest one that is enough is offered, and set by one press. Beside
  // the strength it is shown which ones are enough.
  async shade(form, line) {
    const field = form.querySelector("[name='v.strength']");
    if (!field) return;
    // It is looked for once the hand rests: it takes the server a few times as long.
    const { turn } = this.asking;
    await new Promise((call) => { setTimeout(call, 400); });
    if (turn !== this.asking.turn || !line.isConnected) return;
    const { root, windows } = this.frames;
    const answer = await this.asking.ask(form, { page: root.dataset.page, width: windows[windows.length - 1].dataset.width, least: true });
    if (!answer || !line.isConnected) return;
    strengths(form, answer.enough);
    if (!answer.shade) return;
    const take = document.createElement("button");
    take.type = "button";
    take.className = "plain link";
    take.dataset.shade = answer.shade;
    take.textContent = say("read.shade", answer.shade);
    take.addEventListener("click", () => {
      field.value = answer.shade;
      for (const type of ["input", "change"]) field.dispatchEvent(new Event(type, { bubbles: true }));
      field.focus();
    });
    line.append(" ", take);
  }
}

// Which strengths of a shade are enough, on its slider and in words; null where it is not known or makes no difference.
function strengths(form, enough) {
  const field = form.querySelector("[name='v.strength']");
  const range = field?.parentElement.querySelector("input[type=range]");
  if (!range) return;
  range.parentElement.querySelector(".safe-part")?.remove();
  form.querySelector("[data-strengths]")?.remove();
  field.removeAttribute("aria-describedby");
  if (!enough) return;
  striped(range, [[enough.from, enough.to]]);
  const line = document.createElement("p");
  line.className = "small quiet mb-0";
  line.dataset.strengths = "";
  line.id = `strengths-${++lines}`;
  line.textContent = say("read.strengths", enough.from, enough.to);
  field.parentElement.after(line);
  field.setAttribute("aria-describedby", line.id);
}
let lines = 0;

// What is said beside a choice.
export function words(answer) {
  if (!answer || !answer.texts) return null;
  if (!answer.worst) return { state: "unknown", short: say("read.cannot"), long: say("read.filter") };
  const { ratio, needed, words } = answer.worst;
  const shown = (Math.floor(ratio * 100) / 100).toLocaleString(document.documentElement.lang || "en", { minimumFractionDigits: 2 });
  const enough = ratio >= needed;
  return {
    state: enough ? "kept" : "breaks",
    worst: { shown, needed, words },
    short: say("read.ratio", shown),
    long: enough
      ? say("read.reads", words, shown, needed)
      : say("read.hard.ratio", words, shown, needed),
  };
}

// The same for owners: what it means, with the numbers for who wants them. Of what cannot be told nothing is said: it is the maker's affair.
export function plainWords(said) {
  if (!said || said.state === "unknown") return null;
  const { shown, needed, words } = said.worst;
  const hard = said.state === "breaks";
  return {
    state: said.state,
    short: hard ? say("read.hard") : "",
    long: hard ? say("read.hard.text", words) : say("read.good"),
    numbers: say("read.contrast", words, shown, needed),
  };
}
