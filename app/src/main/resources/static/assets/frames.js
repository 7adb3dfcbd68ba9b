// Frames of a page at several widths, drawn to scale. Talks to frame.js inside them; the frames have an origin of their
// own, so what comes from them is known by its window.
export class Frames {
  constructor(root, { onShown = () => {}, onOpen = () => {}, onPick = () => {} } = {}) {
    this.root = root;
    this.windows = [...root.querySelectorAll("iframe[data-width]")];
    this.ready = new Set();
    this.last = {};
    this.waiting = new Map();
    this.next = 1;
    this.onShown = onShown;
    this.onPick = onPick;
    addEventListener("message", (event) => this.hear(event, onOpen));
    new ResizeObserver(() => this.fit()).observe(root);
    this.fit();
  }

  fit() {
    const room = this.root.clientWidth;
    const height = Number(this.root.dataset.height) || 280;
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

  send(message) {
    for (const frame of this.windows) frame.contentWindow.postMessage(message, "*");
  }

  again(type) {
    if (this.last[type]) this.send(this.last[type] = { ...this.last[type], scale: this.scale });
  }

  // Values that are tried: shown in all frames at once, kept nowhere.
  values(css) {
    this.send(this.last.values = { type: "values", css });
  }

  show(marks, { color = null, reveal = true, sure = false } = {}) {
    this.counts = new Map();
    this.send(this.last.show = { type: "show", marks, color, reveal, sure, scale: this.scale });
  }

  // Whether a click asks about a part instead of following a link.
  picking(on) {
    this.send(this.last.picking = { type: "picking", on });
  }

  // Styles that take something away to look what else is there: kept nowhere.
  without(css) {
    this.send(this.last.without = { type: "without", css });
  }

  hide(hidden) {
    this.send(this.last.hide = { type: "hide", hidden });
  }

  // Asks the widest frame; a promise of one answer for each candidate.
  measure(candidates, probes) {
    const frame = this.windows[this.windows.length - 1];
    const id = this.next++;
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      frame.contentWindow.postMessage({ type: "measure", id, candidates, probes }, "*");
    });
  }

  whenReady() {
    const widest = this.windows[this.windows.length - 1];
    if (this.ready.has(widest)) return Promise.resolve();
    return new Promise((resolve) => { (this.readyCalls ||= []).push(resolve); });
  }

  open(page) {
    this.root.dataset.page = page;
    this.ready.clear();
    for (const frame of this.windows) frame.src = this.root.dataset.base + page;
  }

  reload(base) {
    this.root.dataset.base = base;
    this.open(this.root.dataset.page);
  }

  hear({ source, data }, onOpen) {
    const frame = this.windows.find((f) => f.contentWindow === source);
    if (!frame || !data) return;
    if (data.type === "ready") {
      this.ready.add(frame);
      for (const type of ["values", "without", "picking", "hide", "show"]) {
        if (this.last[type]) source.postMessage({ ...this.last[type], scale: this.scale }, "*");
      }
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
      this.onShown(this.counts);
    }
    if (data.type === "pick" && Number.isInteger(data.at)) this.onPick(data.at, Number(frame.dataset.width));
    if (data.type === "open" && typeof data.href === "string") {
      const from = new URL(this.root.dataset.page, "https://theme.invalid/");
      const target = new URL(data.href, from);
      if (target.host === "theme.invalid") onOpen(decodeURI(target.pathname.slice(1)) || "index.html");
    }
  }
}

// The custom properties that a value of a setting becomes.
export function css(key, value, triple) {
  if (!value) return "";
  const numbers = triple ? `--${key}-rgb:${numbersOf(value)};` : "";
  return `--${key}:${value};${numbers}`;
}
function numbersOf(value) {
  const context = document.createElement("canvas").getContext("2d");
  context.fillStyle = value;
  context.fillRect(0, 0, 1, 1);
  return [...context.getImageData(0, 0, 1, 1).data].slice(0, 3).join(", ");
}
export const isColor = (value) => CSS.supports("color", value) && !/^(inherit|initial|unset|revert|revert-layer|currentcolor)$|var\(/i.test(value.trim());

// What is said beside a choice.
export function words(answer) {
  if (!answer || !answer.texts) return null;
  if (!answer.worst) return { state: "unknown", short: "cannot tell", long: "The text stands on a picture or something translucent; its contrast cannot be told here." };
  const { ratio, needed, words } = answer.worst;
  const shown = (Math.floor(ratio * 100) / 100).toFixed(2);
  const enough = ratio >= needed;
  return {
    state: enough ? "kept" : "breaks",
    short: `${shown} to 1`,
    long: enough
      ? `“${words}” reads at ${shown} to 1; ${needed} is needed.`
      : `“${words}” is hard to read: ${shown} to 1, and ${needed} is needed.`,
  };
}
