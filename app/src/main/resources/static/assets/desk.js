// The maker's desk: choosing a row brings its card, and outlines in the frames what it paints.
import { Frames, css, isColor, words } from "./frames.js";

const strip = document.querySelector("[data-strip]");
const about = document.querySelector("[data-about]");
const card = document.getElementById("card");
const pagePick = document.querySelector("[data-page-pick]");

const frames = new Frames(strip, {
  onShown: (counts) => {
    const line = about?.querySelector("[data-counts]");
    if (!line || !current()) return;
    const list = [...counts.values()];
    const most = Math.max(...list.map((c) => c.count));
    const whenever = Math.max(...list.map((c) => c.whenever));
    // A finding concerns parts; a colour or a setting paints them.
    const verb = current().dataset.sure === "true" ? "Concerns" : "Paints";
    line.textContent = most + whenever === 0 ? `${verb} nothing on this page.`
      : (most ? `${verb} ${most} ${most === 1 ? "part" : "parts"} of this page.` : "")
        + (whenever ? ` ${most ? "And" : verb} ${whenever} in a state such as hover, dashed.` : "");
  },
  onPick: (at, width) => lookAt(at, width),
  onOpen: (page) => {
    if ([...pagePick.options].some((o) => o.value === page)) {
      pagePick.value = page;
      frames.open(page);
    }
  },
});
pagePick?.addEventListener("change", () => frames.open(pagePick.value));
frames.onReady = () => judge();

// The root element is the first one of every page.
const ROOT = 1;

// Parts of the page: pointed at in a frame, or walked to from one to the next.
const desk = document.querySelector("[data-part-address]");
if (desk) frames.picking(true);
function lookAt(at, width, extra = "") {
  const address = `${desk.dataset.partAddress}?page=${encodeURIComponent(pagePick.value)}&at=${at}&width=${width || 1440}${extra}`;
  return htmx.ajax("GET", address, { target: "#card", swap: "innerHTML" });
}
function showPage(page) {
  if (page && pagePick.value !== page && [...pagePick.options].some((o) => o.value === page)) {
    pagePick.value = page;
    frames.open(page);
  }
}
const partMarks = (at) => [{ selector: `[data-calm-at="${at}"]`, property: "color", whenever: "" }];
function followPart(part) {
  const { at, width, title } = part.dataset;
  const own = () => frames.show(partMarks(at), { sure: true });
  own();
  about.querySelector("[data-title]").textContent = title;
  about.querySelector("[data-counts]").textContent = `Why it looks so at ${width} px stands at the right.`;
  part.querySelectorAll("[data-go]").forEach((b) => b.addEventListener("click", () => lookAt(b.dataset.go, width)));
  part.querySelectorAll("[data-state]").forEach((box) => box.addEventListener("change", () => {
    const on = [...part.querySelectorAll("[data-state]:checked")].map((b) => `&state=${b.value}`).join("");
    lookAt(at, width, on);
  }));
  // What else the same declaration or custom property paints.
  part.querySelectorAll("[data-outline]").forEach((line) => {
    const show = () => frames.show(JSON.parse(line.dataset.outline), { sure: true, reveal: false });
    line.addEventListener("pointerenter", show);
    line.addEventListener("focusin", show);
    line.addEventListener("pointerleave", own);
    line.addEventListener("focusout", own);
  });
  part.querySelectorAll("[data-without]").forEach((button) => {
    const key = `${at}|${button.dataset.without}|${button.dataset.pseudo || ""}`;
    button.setAttribute("aria-pressed", without.has(key));
    button.addEventListener("click", () => {
      if (without.has(key)) without.delete(key);
      else without.set(key, withoutRule(at, button.dataset.without, button.dataset.pseudo));
      button.setAttribute("aria-pressed", without.has(key));
      lookWithout();
    });
  });
  // Of the fields only those that belong to what was chosen.
  const shape = () => {
    const what = part.querySelector("[name=what]:checked")?.value;
    part.querySelectorAll("[data-when]").forEach((f) => {
      f.hidden = f.dataset.when !== what;
      f.querySelectorAll("input, select").forEach((i) => { i.disabled = f.hidden; });
    });
    part.querySelectorAll("[data-unless]").forEach((f) => { f.hidden = f.dataset.unless === what; });
  };
  part.querySelectorAll("[name=what]").forEach((r) => r.addEventListener("change", shape));
  if (part.matches("[data-changing]")) shape();
  part.querySelectorAll("[data-picks]").forEach((picker) => picker.addEventListener("input", () => {
    const field = document.getElementById(picker.dataset.picks);
    field.value = picker.value;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }));
}

// Looking without a background or decoration: a style in the frames, nothing is edited.
const without = new Map();
function withoutRule(at, property, pseudo) {
  const selector = `[data-calm-at="${at}"]${pseudo ? `::${pseudo}` : ""}`;
  const side = property.replace(/-color$/, "");
  const none = property === "background-color" ? "background-color:transparent"
    : property.startsWith("border") ? `${side}:0` : /^(margin|padding)/.test(property) ? `${property}:0`
    : property === "opacity" ? "opacity:1" : `${property}:none`;
  return `${selector}{${none}!important}`;
}
function lookWithout() {
  frames.without([...without.values()].join(""));
  const line = about.querySelector("[data-without-line]");
  line.hidden = without.size === 0;
  line.querySelector("[data-without-count]").textContent = `Looking without ${without.size} ${without.size === 1 ? "thing" : "things"}.`;
}
about?.querySelector("[data-with-again]")?.addEventListener("click", () => {
  without.clear();
  lookWithout();
  card.querySelectorAll("[data-without]").forEach((b) => b.setAttribute("aria-pressed", "false"));
});

function current() {
  return card?.querySelector("[data-marks]");
}

function showCard(reveal = true) {
  const part = card?.querySelector("[data-part]");
  if (part) {
    followPart(part);
    select("");
    return;
  }
  const now = current();
  if (!now) {
    frames.show([], {});
    return;
  }
  showPage(now.dataset.onPage);
  frames.show(JSON.parse(now.dataset.marks), { color: now.dataset.color, reveal, sure: now.dataset.sure === "true" });
  about.querySelector("[data-title]").textContent = now.dataset.title;
  select(now.dataset.row);
  follow(now);
}
function select(value) {
  for (const row of document.querySelectorAll("tr.pick")) row.setAttribute("aria-selected", row.dataset.row === value);
  for (const dot of document.querySelectorAll("[data-dot]")) {
    if (dot.dataset.dot === value) dot.setAttribute("aria-current", "true");
    else dot.removeAttribute("aria-current");
  }
}

// Fields of a card that the frames follow while one types.
function follow(now) {
  const field = now.querySelector("[data-default]");
  if (field) {
    const picker = now.querySelector("input[type=color]");
    const dot = now.querySelector("[data-default-dot]");
    const changed = () => {
      const value = field.value.trim();
      if (!isColor(value)) return;
      dot?.setAttribute("fill", value);
      frames.values(`:root{${css(now.dataset.key, value, now.dataset.triple === "true")}}`);
      frames.show(JSON.parse(now.dataset.marks), { color: value, reveal: false });
      judge();
    };
    field.addEventListener("input", changed);
    picker?.addEventListener("input", () => { field.value = picker.value; changed(); });
  }
  const all = now.querySelector("[data-all]");
  const boxes = [...now.querySelectorAll("[data-use]")];
  const count = () => {
    const ticked = boxes.filter((b) => b.checked).length;
    const label = now.querySelector("[data-chosen]");
    if (label) label.textContent = `${ticked} of ${boxes.length} chosen`;
  };
  all?.addEventListener("click", () => {
    const on = boxes.some((b) => !b.checked && !b.disabled);
    boxes.forEach((b) => { b.checked = on && !b.disabled; });
    count();
  });
  boxes.forEach((box) => {
    box.addEventListener("change", count);
    const only = () => frames.show(JSON.parse(box.dataset.use), { color: now.dataset.color, reveal: true });
    box.closest("li").addEventListener("pointerenter", only);
    box.addEventListener("focus", only);
  });
  now.querySelector(".uses")?.addEventListener("pointerleave", () =>
    frames.show(JSON.parse(now.dataset.marks), { color: now.dataset.color, reveal: false }));
  const allowed = now.querySelector("[data-swatch-values]");
  const shape = () => {
    if (allowed) allowed.hidden = now.querySelector("[name=allowed]:checked")?.value !== "swatches";
  };
  now.querySelectorAll("[name=allowed]").forEach((r) => r.addEventListener("change", shape));
  shape();
  now.querySelectorAll("[data-add-color]").forEach((b) => b.addEventListener("click", () => {
    const area = now.querySelector("textarea[name=swatches]");
    const lines = area.value.split("\n").map((l) => l.trim()).filter(Boolean);
    if (!lines.includes(b.dataset.addColor)) area.value = [...lines, b.dataset.addColor].join("\n");
    area.dispatchEvent(new Event("input"));
  }));
  count();
  judge();
}

// How well texts read on, or in, the value of the card.
async function judge() {
  const now = current();
  const line = now?.querySelector("[data-judged]");
  const field = now?.querySelector("[data-default]");
  if (!line || !field || !isColor(field.value)) return;
  await frames.whenReady();
  const { key, triple } = now.dataset;
  const rule = (value) => `:root{${css(key, value, triple === "true")}}`;
  const [answer] = await frames.measure([rule(field.value)], [rule("#000000"), rule("#ffffff")]);
  const said = words(answer);
  line.className = "reading " + (said ? `state-${said.state}` : "quiet");
  line.textContent = said ? said.long : "No text on this page stands on it or is painted by it.";
}

document.body.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id === "card") {
    frames.values("");
    showCard();
    card.scrollTop = 0;
  }
});

// The colours as a picture: a dot chooses the row of the list, and the row marks the dot.
document.querySelector(".plot")?.addEventListener("click", (event) => {
  const dot = event.target.closest("[data-dot]");
  if (!dot) return;
  event.preventDefault();
  const row = document.querySelector(`tr.pick[data-row="${CSS.escape(dot.dataset.dot)}"]`);
  row.querySelector(".name").click();
  row.scrollIntoView({ block: "nearest" });
});
document.querySelector(".ledger")?.addEventListener("click", (event) => {
  const place = event.target.closest("[data-outline-now]");
  if (place) {
    showPage(place.dataset.onPage);
    frames.show(JSON.parse(place.dataset.outlineNow), { sure: true });
  }
});

// Rows: a click anywhere on them, arrows up and down, and search.
document.querySelector(".ledger")?.addEventListener("click", (event) => {
  const row = event.target.closest("tr.pick");
  if (row && !event.target.closest("a, button, input")) row.querySelector(".name").click();
  if (event.target.closest("a[href='#']")) event.preventDefault();
});
document.querySelector(".ledger")?.addEventListener("keydown", (event) => {
  if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
  const names = [...document.querySelectorAll("tr.pick:not([hidden]) .name")];
  const at = names.indexOf(document.activeElement);
  const next = names[at + (event.key === "ArrowDown" ? 1 : -1)];
  if (at >= 0 && next) {
    event.preventDefault();
    next.focus();
    next.click();
  }
});
const search = document.querySelector("[data-search]");
search?.addEventListener("input", () => {
  const wanted = search.value.trim().toLowerCase();
  let left = 0;
  for (const row of document.querySelectorAll("tr.pick")) {
    row.hidden = wanted !== "" && !row.dataset.words.toLowerCase().includes(wanted);
    left += row.hidden ? 0 : 1;
  }
  for (const group of document.querySelectorAll("tbody")) group.hidden = group.querySelectorAll("tr.pick:not([hidden])").length === 0;
  const none = document.querySelector("[data-none-found]");
  if (none) none.hidden = left > 0;
});

let outlinesHidden = false;
addEventListener("calm:key", ({ detail }) => {
  if (detail === "o") frames.hide(outlinesHidden = !outlinesHidden);
  if (detail === "/") (search || document.querySelector("[data-search-all]"))?.focus();
  if (detail === "p" && desk) lookAt(card.querySelector("[data-part]")?.dataset.at || ROOT).then(() => card.querySelector("[data-go]:not(:disabled)")?.focus());
});
showCard(false);
const asked = new URLSearchParams(location.search).get("at");
if (desk && asked) lookAt(asked);
