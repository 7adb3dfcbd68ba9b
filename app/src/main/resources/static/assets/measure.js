// Measures the boxes of a page at as many window widths as it takes: until every box between two of them lies in a straight
// line to half a pixel. Works in a frame that nobody sees; what comes out is what core's Measures reads.
import { data } from "./answers.js";
import { straight, track } from "./straight.js";

export const FROM = 320;
export const TO = 2560;
const HEIGHT = 800;
const MOST = 700;
// Of a long page fewer widths are looked at, so that all of it fits into memory: elements times widths.
const MOST_BOXES = 120000;
// A frame answers once the browser draws, sixty times a second at most; so several are asked side by side.
const FRAMES = 4;
// A frame that does not answer for this long, in ms, is given up.
const PATIENCE = 20000;

// By element, as a frame tells it: its number, how many follow, and those.
function unpacked(numbers) {
  const all = {};
  for (let i = 0; i < numbers.length; i += 2 + numbers[i + 1]) all[numbers[i]] = Array.from(numbers.subarray(i + 2, i + 2 + numbers[i + 1]));
  return all;
}

// In some browsers frames get their new width only when this page is drawn, and it is drawn as long as somebody asks for it. Where they
// have it at once, drawing would take longer than measuring.
let measuring = 0;
let drawing = false;
function draw() {
  if (drawing || !measuring) return;
  drawing = true;
  const next = () => { drawing = measuring > 0; if (drawing) requestAnimationFrame(next); };
  requestAnimationFrame(next);
}

class Window {
  constructor(address) {
    this.frame = document.createElement("iframe");
    this.frame.sandbox = "allow-scripts";
    this.frame.tabIndex = -1;
    this.frame.ariaHidden = "true";
    this.frame.style.cssText = `width:${FROM}px;height:${HEIGHT}px;border:0`;
    // In sight of the browser, which draws what cannot be seen once a second only, and of nobody else: one faint point of it. What a
    // box cuts off is not drawn at all, and drawing takes longer than measuring.
    this.hole = document.createElement("div");
    this.hole.style.cssText = "position:fixed;left:0;top:0;width:1px;height:1px;overflow:hidden;opacity:.01;pointer-events:none;z-index:1000";
    this.hole.append(this.frame);
    this.waiting = new Map();
    this.hear = ({ source, data }) => {
      if (source !== this.frame.contentWindow || !data) return;
      if (data.type === "ready") this.onReady?.();
      if (data.type === "narrow") draw();
      if (data.type === "boxes") this.waiting.get(data.id)?.(data);
    };
    addEventListener("message", this.hear);
    this.ready = this.within(new Promise((resolve) => { this.onReady = resolve; }));
    this.frame.src = address;
    document.body.append(this.hole);
  }

  within(promise) {
    let timer;
    const late = new Promise((_, fail) => { timer = setTimeout(() => fail(new Error("The page did not answer.")), PATIENCE); });
    return Promise.race([promise, late]).finally(() => clearTimeout(timer));
  }

  at(width, read) {
    this.frame.style.width = `${width}px`;
    const answer = this.within(new Promise((resolve) => { this.waiting.set(width, resolve); }));
    this.frame.contentWindow.postMessage({ type: "boxes", id: width, width, read }, "*");
    return answer.then((a) => { this.waiting.delete(width); return { width, height: a.height, boxes: unpacked(a.boxes), lines: unpacked(a.lines) }; });
  }

  close() {
    removeEventListener("message", this.hear);
    this.hole.remove();
  }
}

// Where it is looked between two widths.
const points = (a, b) => (b - a > 120 ? [0.42, 0.81] : [0.5]).map((p) => Math.max(a + 1, Math.min(b - 1, Math.round(a + (b - a) * p))));

// Between two widths where no media query turns, most borders and paddings are the same, and what is hidden stays hidden: of those that
// are alike at both ends and within, styles are not asked for again, which takes longer than all boxes.
class Stretch {
  constructor(a, b, looked) {
    this.a = a;
    this.b = b;
    const [first] = looked;
    const sides = (at, key) => at.boxes[key]?.slice(4).join();
    const keys = new Set(looked.flatMap((at) => Object.keys(at.boxes)));
    this.read = [...keys].filter((key) => looked.some((at) => sides(at, key) !== sides(first, key) || !at.boxes[key] || (key in at.lines) !== (key in first.lines))).map(Number);
    this.first = first;
    this.named = new Set(this.read.map(String));
  }

  holds(width) {
    return width > this.a && width < this.b;
  }

  // What a frame told without styles, with those that are known.
  whole(told) {
    for (const key of Object.keys(told.boxes)) {
      if (this.named.has(key) || !this.first.boxes[key]) continue;
      told.boxes[key].push(...this.first.boxes[key].slice(4));
      if (!(key in this.first.lines)) delete told.lines[key];
    }
    return told;
  }
}

// @param widest so many widths at most; what is not looked at counts as unsure
export async function measure(address, page, turns, onProgress = () => {}, widest = MOST) {
  const frames = Array.from({ length: FRAMES }, () => new Window(address));
  measuring++;
  try {
    await Promise.all(frames.map((f) => f.ready));
    const known = new Map();
    const free = [...frames];
    const stretches = [];
    const look = async (width) => {
      if (known.has(width)) return known.get(width);
      const frame = free.pop();
      const stretch = stretches.find((s) => s.holds(width));
      known.set(width, stretch ? stretch.whole(await frame.at(width, stretch.read)) : await frame.at(width));
      free.push(frame);
      onProgress(known.size);
      return known.get(width);
    };
    const together = async (list, work) => {
      for (let i = 0; i < list.length; i += FRAMES) await Promise.all(list.slice(i, i + FRAMES).map(work));
    };
    const starts = [FROM, TO, ...turns.flatMap((t) => [t - 1, t])].filter((w) => w >= FROM && w <= TO);
    const first = [...new Set(starts)].sort((a, b) => a - b);
    await together(first, look);
    let open = first.slice(1).map((b, i) => [first[i], b]).filter(([a, b]) => b - a > 1);
    const inner = ([a, b]) => points(a, b)[0];
    await together(open.map(inner), look);
    stretches.push(...open.map(([a, b]) => new Stretch(a, b, [a, inner([a, b]), b].map((w) => known.get(w)))));
    const most = Math.max(Math.min(60, widest), Math.min(widest, MOST_BOXES / Object.keys(known.get(FROM).boxes).length));
    while (open.length && known.size < most) {
      open.sort((x, y) => (y[1] - y[0]) - (x[1] - x[0]));
      await Promise.all(open.splice(0, FRAMES).map(async ([a, b]) => {
        for (const m of points(a, b)) {
          if (!straight(known.get(a), await look(m), known.get(b))) {
            open.push(...[[a, m], [m, b]].filter((half) => half[1] - half[0] > 1));
            return;
          }
        }
      }));
    }
    const widths = [...known.keys()].sort((a, b) => a - b);
    const tracks = (kind) => {
      const all = {};
      for (const key of new Set(widths.flatMap((w) => Object.keys(known.get(w)[kind])))) all[key] = track(widths, widths.map((w) => known.get(w)[kind][key]));
      return all;
    };
    return { format: "calm-measures/1", page, windowHeight: HEIGHT, from: FROM, to: TO, unsure: open,
      height: track(widths, widths.map((w) => [known.get(w).height])), boxes: tracks("boxes"), lines: tracks("lines") };
  } finally {
    measuring--;
    frames.forEach((f) => f.close());
  }
}

// Measures a page of a theme and gives what came out to the server. The view tells where: base of the previews, address of the
// theme, its head, and where media queries turn.
export async function measured(view, page, onProgress) {
  const made = await measure(view.dataset.base + path(page), page, JSON.parse(view.dataset.turns), onProgress);
  await keep(view, { page }, made);
}

const path = (page) => page.split("/").map(encodeURIComponent).join("/");

async function keep(view, what, made) {
  const { theme, head } = view.dataset;
  const headers = { ...JSON.parse(document.body.getAttribute("hx-headers") || "{}"), "Content-Type": "application/octet-stream" };
  const answer = await fetch(`${theme}/measures?${new URLSearchParams({ base: head, ...what })}`, { method: "POST", body: JSON.stringify(made), headers });
  if (!answer.ok) throw new Error("What was measured could not be kept. Load the page again.");
}

// Each page once, whoever asks for it.
const asked = new Map();
export function measuredOnce(view, page) {
  if (!asked.has(page)) asked.set(page, measured(view, page).catch((problem) => { asked.delete(page); throw problem; }));
  return asked.get(page);
}

// All pages that nobody measured since they were last laid out otherwise, one after the other.
export async function measureMissing(view, onPage = () => {}) {
  const waiting = (view.dataset.unmeasured ?? "").split("|").filter(Boolean);
  for (const [i, page] of waiting.entries()) {
    onPage(page, i, waiting.length);
    await measuredOnce(view, page);
  }
  return waiting.length;
}

// With other values fewer widths do: whether a page holds together then is looked at where windows are.
const FEW = 60;
const WINDOWS = [360, 390, 480, 600, 768, 900, 1024, 1200, 1366, 1440, 1600, 1920, 2240];

// All pages that nobody measured yet with another value of a setting which moves their boxes. One that does not answer is left out.
// Gives whether there is something that what is shown does not tell.
export async function measureVaried(view, onPage = () => {}) {
  const left = await data(await fetch(`${view.dataset.theme}/measures/unvaried`, { headers: { Accept: "application/json" } }).catch(() => null));
  const turns = [...JSON.parse(view.dataset.turns), ...WINDOWS];
  for (const [i, { page, variation, base }] of (left?.pages ?? []).entries()) {
    onPage(i, left.pages.length);
    const made = await measure(base + path(page), page, turns, () => {}, FEW).catch(() => null);
    if (made) await keep(view, { page, variation }, made);
  }
  return Boolean(left) && (left.pages.length > 0 || left.known !== view.dataset.told);
}
