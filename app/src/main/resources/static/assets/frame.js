// Runs inside a preview, in a sandbox with an origin of its own. It draws outlines, measures contrast, tries values and
// tells the desk what was clicked. It takes messages from the page around it only, and the page around it checks that
// what comes back comes from its own frame.
import { comings, contrast, faded, hex, luminance, nothing, over, ratio, same } from "./paint.js";

const desk = window.parent;
const trial = document.createElement("style");
const without = document.createElement("style");
const still = document.createElement("style");
still.textContent = "*,*::before,*::after{transition:none!important;animation:none!important}";
document.documentElement.append(trial, without);

const tell = (message) => desk.postMessage(message, "*");

// Colours as bytes: whatever notation the browser computes, a canvas turns it into what is painted.
const canvas = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
const known = new Map();
function bytes(color) {
  if (!known.has(color)) {
    canvas.canvas.width = 1;
    canvas.canvas.height = 1;
    canvas.clearRect(0, 0, 1, 1);
    canvas.fillStyle = "rgba(0,0,0,0)";
    canvas.fillStyle = color;
    canvas.fillRect(0, 0, 1, 1);
    const [r, g, b, a] = canvas.getImageData(0, 0, 1, 1).data;
    // The canvas keeps whole bytes; the alpha that was written is the better one.
    const written = /[,/]\s*([\d.]+)\)$/.exec(color);
    known.set(color, { r, g, b, a: a === 255 ? 1 : written && color.startsWith("rgba") ? Number(written[1]) : a / 255 });
  }
  return known.get(color);
}

const LONGHANDS = {
  color: ["color"], fill: ["fill"], stroke: ["stroke"], "background-color": ["backgroundColor"],
  background: ["backgroundColor", "backgroundImage"], "background-image": ["backgroundImage"],
};
const SIDES = ["borderTopColor", "borderRightColor", "borderBottomColor", "borderLeftColor"];
function longhands(property) {
  if (LONGHANDS[property]) return LONGHANDS[property];
  if (property.startsWith("border")) return SIDES;
  return [property.replace(/-([a-z])/g, (_, c) => c.toUpperCase())];
}

function find(selector) {
  try {
    return [...document.querySelectorAll(selector)].filter((e) => !e.closest("[data-calm]"));
  } catch {
    return [];
  }
}

// Outlines
let marks = [];
let scale = 1;
let hidden = false;
const layer = document.createElement("div");
layer.dataset.calm = "";
layer.style.cssText = "position:absolute;left:0;top:0;width:0;height:0;z-index:2147483647;pointer-events:none;display:block";
const shadow = layer.attachShadow({ mode: "closed" });
document.documentElement.append(layer);

// An element is marked if the colour that is asked about really shows on it now.
function marked(list, color, sure) {
  const found = new Map();
  const wanted = color ? bytes(color) : null;
  for (const { selector, property, whenever } of list) {
    for (const element of find(selector)) {
      if (found.get(element) === "always") continue;
      if (whenever) {
        if (!sure && !found.has(element)) found.set(element, "whenever");
        continue;
      }
      const style = getComputedStyle(element);
      const shows = !wanted || longhands(property).some((name) => {
        const value = style[name] || "";
        const parts = value.match(/(?:rgba?|color|oklch|oklab|lab|lch)\([^)]*\)/g) || [];
        return parts.some((part) => same(bytes(part), wanted));
      });
      if (shows) found.set(element, "always");
    }
  }
  return found;
}
let shown = new Map();
function draw() {
  shadow.replaceChildren();
  if (hidden) return;
  const origin = layer.getBoundingClientRect();
  const width = 2 / scale;
  for (const [element, when] of shown) {
    for (const box of element.getClientRects()) {
      if (box.width === 0 && box.height === 0) continue;
      // Around the part, but inside the window where the part reaches its edges.
      const page = document.documentElement;
      const left = Math.max(box.left - 2 * width, -scrollX);
      const right = Math.min(box.right + 2 * width, Math.max(page.scrollWidth, innerWidth) - scrollX);
      const top = Math.max(box.top - 2 * width, -scrollY);
      const mark = document.createElement("div");
      mark.style.cssText = `position:absolute;left:${left - origin.left}px;top:${top - origin.top}px;`
        + `width:${right - left}px;height:${box.bottom + 2 * width - top}px;box-sizing:border-box;`
        + `border:${width}px ${when === "always" ? "solid" : "dashed"} #1d5c50;box-shadow:inset 0 0 0 ${width / 2}px #fff,0 0 0 ${width / 2}px #fff;border-radius:${width}px`;
      shadow.append(mark);
    }
  }
}
// The box in which a background is placed: the padding box; what the body paints goes over the whole page.
function padded(element) {
  const whole = element === document.body && getComputedStyle(document.documentElement).backgroundImage === "none"
    && bytes(getComputedStyle(document.documentElement).backgroundColor).a === 0 ? document.documentElement : element;
  const style = getComputedStyle(whole);
  const { width, height } = whole.getBoundingClientRect();
  const edge = (a, b) => parseFloat(style[`border${a}Width`]) + parseFloat(style[`border${b}Width`]);
  return [width - edge("Left", "Right"), height - edge("Top", "Bottom")];
}
function show(message) {
  marks = message.marks;
  scale = message.scale || 1;
  shown = marked(marks, message.color, message.sure);
  draw();
  const first = [...shown.keys()][0];
  if (message.reveal && first) {
    const box = first.getBoundingClientRect();
    if (box.bottom < 0 || box.top > innerHeight) first.scrollIntoView({ block: "center", behavior: "instant" });
    draw();
  }
  tell({ type: "shown", box: first ? padded(first) : null, window: [innerWidth, innerHeight], count: [...shown.values()].filter((w) => w === "always").length, whenever: [...shown.values()].filter((w) => w !== "always").length });
}
addEventListener("resize", draw);
addEventListener("scroll", draw, { passive: true });

// Contrast of the texts that a value changes, or stands behind.
function texts() {
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  const found = new Set();
  while (walker.nextNode() && found.size < 1500) {
    const element = walker.currentNode.parentElement;
    if (walker.currentNode.textContent.trim() && element && !element.closest("script,style,noscript,[data-calm]")
      && element.getClientRects().length) found.add(element);
  }
  return [...found];
}
// What is seen of a text and of the ground around it: all paint down to the canvas, each group with its opacity, as core's
// Backdrop has it. A test holds the two together.
// A painted ::before or ::after out of the flow may lie behind the text; the server tells of it what boxes tell.
function isOverlaid(element, boxes) {
  return ["::before", "::after"].some((name) => {
    if (boxes.some((box) => box.element === element && box.name === name)) return false;
    const s = getComputedStyle(element, name);
    return s.content !== "none" && s.content !== "normal" && (s.position === "absolute" || s.position === "fixed") && s.display !== "none"
      && s.opacity !== "0" && s.visibility === "visible" && !(parseFloat(s.width) < 10) && !(parseFloat(s.height) < 10)
      && (bytes(s.backgroundColor).a > 0 || s.backgroundImage !== "none");
  });
}
function painted(element, known, boxes) {
  if (!known.has(element)) {
    const style = getComputedStyle(element);
    known.set(element, { color: bytes(style.backgroundColor), image: style.backgroundImage !== "none" || isOverlaid(element, boxes), opacity: Number(style.opacity),
      changed: style.mixBlendMode !== "normal" || style.filter !== "none" || (style.backdropFilter || "none") !== "none" });
  }
  return known.get(element);
}
// Boxes as large as the window that stay in it below the page, as core's Beneath has them: what the page turns into at times.
function isContext(element) {
  const s = getComputedStyle(element);
  const levels = /^(inline-)?(flex|grid)$/.test(element.parentElement ? getComputedStyle(element.parentElement).display : "");
  return element === document.documentElement || s.position === "fixed" || s.position === "sticky" || s.opacity !== "1" || s.transform !== "none"
    || s.filter !== "none" || (s.backdropFilter || "none") !== "none" || s.mixBlendMode !== "normal" || s.isolation === "isolate"
    || (s.zIndex !== "auto" && (s.position !== "static" || levels));
}
// All elements are asked once: a page may have very many, and values that are tried make no such boxes.
let fixed = null;
function beneath() {
  fixed ??= [...document.documentElement.querySelectorAll("*")].flatMap((element) => [null, "::before", "::after"]
    .filter((name) => { const s = getComputedStyle(element, name); return s.position === "fixed" && Number(s.zIndex) < 0; })
    .map((name) => ({ element, name })));
  const shown = ({ element, name }) => {
    const s = getComputedStyle(element, name);
    return s.display !== "none" && s.visibility === "visible" && (!name || (s.content !== "none" && s.content !== "normal"))
      && element.getClientRects().length > 0 && !(parseFloat(s.left) > 0.5) && !(parseFloat(s.top) > 0.5)
      && parseFloat(s.width) >= document.documentElement.clientWidth - 1 && parseFloat(s.height) >= innerHeight - 1;
  };
  return fixed.filter(shown).map(({ element, name }) => {
    const s = getComputedStyle(element, name);
    let context = name ? element : element.parentElement;
    while (!isContext(context)) context = context.parentElement;
    return { element, name, context, changes: s.animationName !== "none", level: Number(s.zIndex) };
  }).sort((x, y) => x.level - y.level);
}
// Of the boxes below in one stacking context: what is always there, and what comes over it, alone and while one goes and another comes.
function low(boxes) {
  let always = nothing;
  const ends = [nothing];
  let image = false;
  for (const { element, name, changes } of boxes) {
    const s = getComputedStyle(element, name);
    const color = bytes(s.backgroundColor);
    image ||= (s.backgroundImage !== "none" || s.mixBlendMode !== "normal" || s.filter !== "none") && (changes || s.opacity !== "0");
    if (!changes) always = over(faded(color, Number(s.opacity)), always);
    else if (color.a > 0 && !ends.some((e) => same(e, color))) ends.push(color);
  }
  return { image, colors: comings(ends).map((color) => over(color, always)) };
}
// The worst of what is seen; "ways" are all of them where the page below changes.
function seenThrough(element, color, known = new Map(), boxes = []) {
  let ways = [{ text: color, ground: nothing }];
  let unknown = false;
  let changed = false;
  const lay = (paint) => ways.forEach((w) => { w.text = over(w.text, paint); w.ground = over(w.ground, paint); });
  const lowest = (context) => {
    const mine = boxes.filter((box) => box.context === context && (box.name || !box.element.contains(element)));
    if (!mine.length || ways.every((w) => w.ground.a === 1)) return;
    if (!known.has(mine[0])) known.set(mine[0], low(mine));
    const { image, colors } = known.get(mine[0]);
    unknown ||= image;
    ways = ways.flatMap((w) => colors.map((paint) => ({ text: over(w.text, paint), ground: over(w.ground, paint) })));
  };
  const root = document.documentElement;
  const bare = painted(root, known, boxes).color.a === 0 && !painted(root, known, boxes).image;
  for (let at = element; at; at = at.parentElement) {
    const paint = painted(at, known, boxes);
    unknown ||= (paint.image && ways.some((w) => w.ground.a < 1)) || paint.changed;
    changed ||= paint.changed;
    // Where the root has no paint, that of the body is the canvas, which lies below all.
    if (at !== root || !bare) lowest(at);
    if (at === document.body && bare) lowest(root);
    lay(paint.color);
    if (paint.opacity !== 1) ways.forEach((w) => { w.text = faded(w.text, paint.opacity); w.ground = faded(w.ground, paint.opacity); });
  }
  lay({ r: 255, g: 255, b: 255, a: 1 });
  const worst = ways.reduce((x, y) => (ratio(y.text, y.ground) < ratio(x.text, x.ground) ? y : x));
  return { ...worst, ways, unknown, changed };
}
function read(elements, boxes) {
  const known = new Map();
  return elements.map((element) => seenThrough(element, bytes(getComputedStyle(element).color), known, boxes));
}
const look = (seen) => seen.ways.map((w) => hex(w.text) + hex(w.ground)).join();
function measure({ id, candidates, probes, grounds = {} }) {
  const before = trial.textContent;
  // Which of them change is told by their movement, so it is asked before that is stilled.
  const boxes = beneath();
  document.documentElement.append(still);
  const elements = texts();
  // The texts that depend on the setting are those that look different under two values of it.
  const [a, b] = probes.map((css) => { trial.textContent = css; return read(elements, boxes); });
  const differ = (x, y) => hex(x) !== hex(y);
  const affected = elements.filter((_, i) => look(a[i]) !== look(b[i]));
  // Of a text on a picture or gradient the ground is told to us, as luminances between which nearly all of it lies; that holds as
  // long as the setting paints only the letters.
  const told = new Map(elements.map((e, i) => [e, !differ(a[i].ground, b[i].ground) && grounds[e.dataset.calmAt]]));
  const answers = candidates.map((css) => {
    trial.textContent = css;
    let worst = null;
    let unknown = 0;
    read(affected, boxes).forEach((r, i) => {
      const element = affected[i];
      const between = r.unknown && told.get(element);
      if (r.unknown && (!between || r.changed)) { unknown++; return; }
      const style = getComputedStyle(element);
      const size = parseFloat(style.fontSize);
      const needed = size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 700) ? 3 : 4.5;
      const value = between ? Math.min(...between.map((l) => contrast(luminance(r.text), l))) : ratio(r.text, r.ground);
      if (!worst || value / needed < worst.ratio / worst.needed) {
        worst = { ratio: value, needed, words: element.textContent.trim().replace(/\s+/g, " ").slice(0, 40), text: hex(r.text), ground: hex(r.ground) };
      }
    });
    return { worst, unknown, texts: affected.length };
  });
  trial.textContent = before;
  still.remove();
  tell({ type: "measured", id, answers });
}

// Boxes of parts and the lines of their own texts, as the window is now; the desk makes it wider and narrower and asks again.
// Numbers as core's Measures has them: border box from the corner of the page, then borders and paddings if there are any.
const MOST_BOXES = 800;
const bars = document.createElement("style");
// Bars take room from the page on some machines and none on others.
bars.textContent = "html{scrollbar-width:none!important}";
const round = (v) => Math.round(v * 100) / 100;
// Which elements there are and where their words stand does not change while the window does, so it is looked up once.
let measurable = null;
function measuring() {
  return [...document.querySelectorAll("[data-calm-at]")].slice(0, MOST_BOXES).map((element) => ({
    key: Number(element.dataset.calmAt), element, style: getComputedStyle(element),
    words: [...element.childNodes].filter((n) => n.nodeType === Node.TEXT_NODE && n.textContent.trim()).map((n) => {
      const range = document.createRange();
      range.selectNodeContents(n);
      return range;
    }),
  }));
}
// Top, right, bottom, left of a shorthand in px.
function four(text) {
  if (text === "0px" || text === "") return NONE;
  const [top = 0, right = top, bottom = top, left = right] = text.split(" ").map((v) => parseFloat(v) || 0);
  return [top, right, bottom, left];
}
const NONE = [0, 0, 0, 0];
// Styles are read of all elements, or of those that are named; the desk knows them of the others.
function boxes({ id, width, read, waited = false }) {
  if (innerWidth !== width) {
    // Asking for frames keeps a browser drawing that would else see nothing to draw.
    requestAnimationFrame(() => boxes({ id, width, read, waited: true }));
    // The page around has to be drawn as well, where it does not share its work with this one.
    if (!waited) tell({ type: "narrow", id });
    return;
  }
  if (!still.isConnected) document.documentElement.append(still, bars);
  scrollTo({ top: 0, left: 0, behavior: "instant" });
  // Numbers one after the other, for each element its own, how many follow, and those: objects take the browser longer to hand over than to measure.
  const found = [];
  const lines = [];
  const { scrollX, scrollY } = window;
  measurable ??= measuring();
  const named = read && new Set(read);
  for (const { key, element, style, words } of measurable) {
    const box = element.getBoundingClientRect();
    if (box.width === 0 && box.height === 0 && element.getClientRects().length === 0) continue;
    const styled = !named || named.has(key);
    const sides = styled ? [...four(style.borderWidth), ...four(style.padding)] : NONE;
    const bordered = sides.some((v) => v > 0);
    found.push(key, bordered ? 12 : 4, round(box.left + scrollX), round(box.top + scrollY), round(box.width), round(box.height));
    if (bordered) found.push(...sides.map(round));
    if (!words.length || (styled && style.visibility !== "visible")) continue;
    const own = words.flatMap((range) => [...range.getClientRects()].filter((r) => r.width >= 1 && r.height >= 1));
    if (own.length) lines.push(key, own.length * 4, ...own.flatMap((r) => [r.left + scrollX, r.top + scrollY, r.width, r.height].map(round)));
  }
  tell({ type: "boxes", id, width, height: Math.max(document.documentElement.scrollHeight, document.body?.scrollHeight || 0), boxes: Float64Array.from(found), lines: Float64Array.from(lines) });
}

// Pointing at parts: the desk switches it on; then a click asks why the part looks so, and nothing else happens.
let picking = false;
// What lets clicks through is seen all the same, and is asked about.
const reach = document.createElement("style");
reach.textContent = "*{pointer-events:auto!important}[data-calm]{pointer-events:none!important}";
let pointed = null;
const hint = document.createElement("div");
hint.style.cssText = "position:fixed;display:none;pointer-events:none;box-sizing:border-box;border-radius:2px";
shadow.append(hint);
// What is seen at a point: the uppermost part there that paints something, or whose own words are there; not a box that only
// holds others. Tells what of it is seen, for the answer to begin with.
const REPLACED = "img,video,svg,canvas,picture,input,select,textarea,button,hr";
// What is faded to nothing or hidden is passed over to what is seen there.
const isSeen = (e) => e.checkVisibility?.({ opacityProperty: true, visibilityProperty: true }) ?? true;
function seenAt(x, y) {
  const near = document.elementsFromPoint(x, y).map((e) => e.closest("[data-calm-at]")).filter((e) => e && isSeen(e));
  for (const element of new Set(near)) {
    const words = [...element.childNodes].some((n) => {
      if (n.nodeType !== Node.TEXT_NODE || !n.textContent.trim()) return false;
      const range = document.createRange();
      range.selectNodeContents(n);
      return [...range.getClientRects()].some((r) => x >= r.left && x <= r.right && y >= r.top && y <= r.bottom);
    });
    if (words || element.matches(REPLACED) || element instanceof SVGElement) return { element, aspect: "" };
    const style = getComputedStyle(element);
    const painted = style.backgroundImage !== "none" || bytes(style.backgroundColor).a > 0;
    const box = element.getBoundingClientRect();
    const edge = SIDES.some((side, i) => {
      const width = parseFloat(style[side.replace("Color", "Width")]);
      const off = [y - box.top, box.right - x, box.bottom - y, x - box.left][i];
      return width > 0 && style[side.replace("Color", "Style")] !== "none" && off >= 0 && off <= width;
    });
    if (edge) return { element, aspect: "border" };
    if (painted) return { element, aspect: "background" };
  }
  return { element: near[0] || null, aspect: "" };
}
function point(element) {
  pointed = element;
  if (!element) { hint.style.display = "none"; return; }
  const box = element.getBoundingClientRect();
  const width = Math.max(1, 1.2 / scale);
  hint.style.cssText = `position:fixed;display:block;pointer-events:none;box-sizing:border-box;left:${box.left}px;top:${box.top}px;`
    + `width:${box.width}px;height:${box.height}px;border:${width}px dashed #1c1e20;outline:${width}px solid rgb(255 255 255 / 70%)`;
  shadow.append(hint);
}
addEventListener("pointermove", (event) => {
  if (!picking) return;
  const now = seenAt(event.clientX, event.clientY).element;
  if (now !== pointed) point(now);
}, { passive: true });
document.documentElement.addEventListener("pointerleave", () => point(null));
addEventListener("scroll", () => point(null), { passive: true });
addEventListener("click", (event) => {
  if (!picking) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  const { element, aspect } = seenAt(event.clientX, event.clientY);
  if (element) tell({ type: "pick", at: Number(element.dataset.calmAt), aspect });
}, true);

// As people with another colour vision see it: through a pane over all, so that nothing of the page is otherwise for it.
let pane = null;
function seeThrough(matrix) {
  const rows = matrix?.map(Number);
  pane?.remove();
  pane = null;
  if (!rows || rows.length !== 9 || !rows.every(Number.isFinite)) return;
  const make = (name, attributes) => {
    const element = document.createElementNS("http://www.w3.org/2000/svg", name);
    Object.entries(attributes).forEach(([key, value]) => element.setAttribute(key, value));
    return element;
  };
  pane = document.createElement("div");
  pane.style.cssText = "position:fixed;inset:0;pointer-events:none";
  const svg = make("svg", { width: 0, height: 0, "aria-hidden": "true" });
  const filter = make("filter", { id: "calm-eyes", "color-interpolation-filters": "linearRGB", x: 0, y: 0, width: 1, height: 1 });
  filter.append(make("feColorMatrix", { values: [0, 3, 6].map((i) => `${rows.slice(i, i + 3).join(" ")} 0 0`).join(" ") + " 0 0 0 1 0" }));
  svg.append(filter);
  pane.append(svg);
  shadow.append(pane);
  pane.style.backdropFilter = 'url("#calm-eyes")';
}

// A tap on a part that is no link leads to what may be chosen of it, or of what is around it.
let askable = [];
const isOne = (element, selector) => {
  try {
    return element.matches(selector.replace(/::[\w-]+(\(.*?\))?/g, ""));
  } catch {
    return false;
  }
};
addEventListener("click", (event) => {
  if (picking || !askable.length || event.target.closest?.("a[href], area[href]")) return;
  for (let e = seenAt(event.clientX, event.clientY).element; e; e = e.parentElement) {
    const keys = askable.filter(([, selectors]) => selectors.some((s) => isOne(e, s))).map(([key]) => key);
    if (keys.length) {
      tell({ type: "asked", keys });
      return;
    }
  }
}, true);

// What bound parts of the page get while values are tried. A part that the build wrote once for each band is left with the
// copy that shows; what is hidden or of another level comes back with the next trial.
const PATTERNS = new WeakMap();
// What repeats is made anew of its first, as the build does it.
function items(element, list) {
  const pattern = PATTERNS.get(element) ?? element.firstElementChild?.cloneNode(true);
  if (!pattern) return;
  PATTERNS.set(element, pattern);
  const said = JSON.stringify(list);
  if (element.dataset.calmItems === said) return;
  element.dataset.calmItems = said;
  element.replaceChildren(...list.map((item, i) => {
    const one = pattern.cloneNode(true);
    if (i) for (const e of [one, ...one.querySelectorAll("*")]) { e.removeAttribute("id"); e.removeAttribute("data-calm-at"); }
    for (const what of ["src", "alt", "href", "show", "text", "level"]) {
      for (const e of [one, ...one.querySelectorAll("*")]) {
        const value = item[e.getAttribute(`data-item-${what}`) ?? ""];
        if (value !== undefined) set(e, what, String(value), "");
      }
    }
    return one;
  }));
}
function set(element, what, text, poster) {
  if (what === "text") {
    if (element.innerText !== text || !element.isConnected) element.replaceChildren(...text.split("\n").flatMap((line, i) => (i ? [document.createElement("br"), line] : [line])));
  } else if (what === "show") {
    element.style.setProperty("display", text === "false" ? "none" : "", text === "false" ? "important" : "");
    if (text === "true") element.removeAttribute("data-setting-hidden");
  } else if (what === "level") {
    relevel(element, text);
  } else if (what === "src") {
    if (element.src !== new URL(text || "about:blank", location).href) {
      element.removeAttribute("srcset");
      element.src = text;
      element.style.display = text || poster ? "" : "none";
    }
    if (element.matches("video")) element.poster = poster;
  } else if (what === "items") {
    items(element, JSON.parse(text));
  } else {
    element.setAttribute(what, text);
  }
}
function fill(fills) {
  for (const { attribute, key, text, poster } of fills) {
    for (const element of find(`[${attribute}="${CSS.escape(key)}"]`)) set(element, attribute.replace("data-setting-", ""), text, poster);
  }
}
function relevel(element, level) {
  if (!/^h[1-6]$/i.test(element.tagName) || element.tagName[1] === level || !/^[1-6]$/.test(level)) return;
  const other = document.createElement(`h${level}`);
  for (const { name, value } of element.attributes) other.setAttribute(name, value);
  other.append(...element.childNodes);
  element.replaceWith(other);
}

// Frames that scroll together go to the same share of their pages.
let told = 0;
let moved = 0;
addEventListener("scroll", () => {
  if (performance.now() - moved < 120 || performance.now() - told < 30) return;
  told = performance.now();
  const room = document.documentElement.scrollHeight - innerHeight;
  tell({ type: "scrolled", share: room > 0 ? scrollY / room : 0 });
}, { passive: true });
function scrollToShare(share) {
  moved = performance.now();
  scrollTo({ top: share * (document.documentElement.scrollHeight - innerHeight), behavior: "instant" });
}

addEventListener("message", ({ source, data }) => {
  if (source !== desk || !data || typeof data.type !== "string") return;
  if (data.type === "hello" && document.readyState === "complete") ready();
  if (data.type === "values") { trial.textContent = data.css; fill(data.fills); draw(); }
  if (data.type === "scroll") scrollToShare(data.share);
  if (data.type === "show") show(data);
  if (data.type === "measure") measure(data);
  if (data.type === "boxes") document.fonts.ready.then(() => boxes(data));
  if (data.type === "picking") {
    picking = data.on;
    if (picking) document.documentElement.append(reach);
    else { reach.remove(); point(null); }
  }
  if (data.type === "without") { without.textContent = data.css; draw(); }
  if (data.type === "see") seeThrough(data.matrix);
  if (data.type === "askable") askable = data.all;
  if (data.type === "hide") { hidden = data.hidden; draw(); }
});

// Links never leave the frame: the desk decides whether to open another page of the theme.
addEventListener("click", (event) => {
  const link = event.target.closest?.("a[href], area[href]");
  if (!link) return;
  const href = link.getAttribute("href");
  if (!href.startsWith("#")) {
    event.preventDefault();
    tell({ type: "open", href });
  }
}, true);
addEventListener("submit", (event) => event.preventDefault(), true);
addEventListener("auxclick", (event) => { if (event.target.closest?.("a[href]")) event.preventDefault(); }, true);

const ready = () => tell({ type: "ready" });
if (document.readyState === "complete") ready(); else addEventListener("load", ready);
