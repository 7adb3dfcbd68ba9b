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
    line.textContent = most + whenever === 0 ? "Paints nothing on this page."
      : (most ? `Paints ${most} ${most === 1 ? "part" : "parts"} of this page.` : "")
        + (whenever ? ` ${most ? "And" : "Paints"} ${whenever} in a state such as hover, dashed.` : "");
  },
  onOpen: (page) => {
    if ([...pagePick.options].some((o) => o.value === page)) {
      pagePick.value = page;
      frames.open(page);
    }
  },
});
pagePick?.addEventListener("change", () => frames.open(pagePick.value));
frames.onReady = () => judge();

function current() {
  return card?.querySelector("[data-marks]");
}

function showCard(reveal = true) {
  const now = current();
  if (!now) {
    frames.show([], {});
    return;
  }
  frames.show(JSON.parse(now.dataset.marks), { color: now.dataset.color, reveal });
  about.querySelector("[data-title]").textContent = now.dataset.title;
  for (const row of document.querySelectorAll("tr.pick")) {
    row.setAttribute("aria-selected", row.dataset.row === now.dataset.row);
  }
  follow(now);
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
  }
});

// Rows: a click anywhere on them, arrows up and down, and search.
document.querySelector(".ledger")?.addEventListener("click", (event) => {
  const row = event.target.closest("tr.pick");
  if (row && !event.target.closest("a, button, input")) row.querySelector(".name").click();
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
  if (detail === "/") search?.focus();
});
showCard(false);
