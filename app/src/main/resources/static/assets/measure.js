// Measures the boxes of a page at as many window widths as it takes: until every box between two of them lies in a straight
// line to half a pixel. Works in a frame that nobody sees; what comes out is what core's Measures reads.
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

class Window {
  constructor(address) {
    this.frame = document.createElement("iframe");
    this.frame.sandbox = "allow-scripts";
    this.frame.tabIndex = -1;
    this.frame.ariaHidden = "true";
    // In sight of the browser, which draws what cannot be seen once a second only, and of nobody else: one faint line of it.
    this.frame.style.cssText = `position:fixed;left:0;top:0;width:${FROM}px;height:${HEIGHT}px;border:0;opacity:.01;clip-path:inset(0 0 ${HEIGHT - 1}px 0);pointer-events:none;z-index:1000`;
    this.waiting = new Map();
    this.hear = ({ source, data }) => {
      if (source !== this.frame.contentWindow || !data) return;
      if (data.type === "ready") this.onReady?.();
      if (data.type === "boxes") this.waiting.get(data.id)?.(data);
    };
    addEventListener("message", this.hear);
    this.ready = this.within(new Promise((resolve) => { this.onReady = resolve; }));
    this.frame.src = address;
    document.body.append(this.frame);
  }

  within(promise) {
    let timer;
    const late = new Promise((_, fail) => { timer = setTimeout(() => fail(new Error("The page did not answer.")), PATIENCE); });
    return Promise.race([promise, late]).finally(() => clearTimeout(timer));
  }

  at(width) {
    this.frame.style.width = `${width}px`;
    const answer = this.within(new Promise((resolve) => { this.waiting.set(width, resolve); }));
    this.frame.contentWindow.postMessage({ type: "boxes", id: width, width }, "*");
    return answer.then((a) => { this.waiting.delete(width); return a; });
  }

  close() {
    removeEventListener("message", this.hear);
    this.frame.remove();
  }
}

export async function measure(address, page, turns, onProgress = () => {}) {
  const frames = Array.from({ length: FRAMES }, () => new Window(address));
  // Frames get their new width when this page is drawn, and it is drawn as long as somebody asks for it.
  let measuring = true;
  const draw = () => { if (measuring) requestAnimationFrame(draw); };
  draw();
  try {
    await Promise.all(frames.map((f) => f.ready));
    const known = new Map();
    const free = [...frames];
    const look = async (width) => {
      if (known.has(width)) return known.get(width);
      const frame = free.pop();
      known.set(width, await frame.at(width));
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
    const most = Math.max(60, Math.min(MOST, MOST_BOXES / Object.keys(known.get(FROM).boxes).length));
    while (open.length && known.size < most) {
      open.sort((x, y) => (y[1] - y[0]) - (x[1] - x[0]));
      await Promise.all(open.splice(0, FRAMES).map(async ([a, b]) => {
        for (const p of b - a > 120 ? [0.42, 0.81] : [0.5]) {
          const m = Math.max(a + 1, Math.min(b - 1, Math.round(a + (b - a) * p)));
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
    measuring = false;
    frames.forEach((f) => f.close());
  }
}

// Measures a page of a theme and gives what came out to the server. The view tells where: base of the previews, address of the
// theme, its head, and where media queries turn.
export async function measured(view, page, onProgress) {
  const { base, theme, head, turns } = view.dataset;
  const made = await measure(base + page.split("/").map(encodeURIComponent).join("/"), page, JSON.parse(turns), onProgress);
  const headers = { ...JSON.parse(document.body.getAttribute("hx-headers") || "{}"), "Content-Type": "application/octet-stream" };
  const answer = await fetch(`${theme}/measures?${new URLSearchParams({ base: head, page })}`, { method: "POST", body: JSON.stringify(made), headers });
  if (!answer.ok) throw new Error("What was measured could not be kept. Load the page again.");
}

// All pages that nobody measured since they were last laid out otherwise, one after the other.
export async function measureMissing(view, onPage = () => {}) {
  const waiting = view.dataset.unmeasured.split("|").filter(Boolean);
  for (const [i, page] of waiting.entries()) {
    onPage(page, i, waiting.length);
    await measured(view, page);
  }
  return waiting.length;
}
