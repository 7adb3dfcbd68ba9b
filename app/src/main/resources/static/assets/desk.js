// The maker's desk: choosing a row brings its card, and outlines in the frames what it paints.
import "./area.js";
import "./background.js";
import "./items.js";
import "./take.js";
import { Asking, Behind, Frames, later, pair, words } from "./frames.js";
import { measureMissing, measureVaried, measuredOnce } from "./measure.js";
import { safeParts } from "./safe.js";

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
    line.textContent = current().dataset.marks === "[]" ? "" : most + whenever === 0 ? `${verb} nothing on this page.`
      : (most ? `${verb} ${most} ${most === 1 ? "part" : "parts"} of this page.` : "")
        + (whenever ? ` ${most ? "And" : verb} ${whenever} in a state such as hover, dashed.` : "");
  },
  onPick: (at, width, aspect) => lookAt(at, width, aspect ? `&seen=${aspect}` : ""),
  onOpen: (page) => {
    if ([...pagePick.options].some((o) => o.value === page)) {
      pagePick.value = page;
      frames.open(page);
    }
  },
});
pagePick?.addEventListener("change", () => frames.open(pagePick.value));

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

// A card: the frames follow what is typed, of the fields only those show that belong to what was chosen.
function follow(now) {
  shape(now);
  later(now);
  swatches(now);
  uses(now);
  if (now.dataset.safe) safeParts(now.dataset.safe, () => [now], { drawnAt: (form) => form.querySelector("[data-default]") });
  if (!now.dataset.try) return;
  const asking = new Asking(now.dataset.try);
  const behind = now.dataset.behind && new Behind(now.dataset.behind, frames);
  let soon = 0;
  const attempt = () => {
    clearTimeout(soon);
    soon = setTimeout(async () => {
      const trial = await asking.ask(now.closest("form"));
      if (trial) await tried(now, trial);
      if (!trial || !behind || trial.refusal) return;
      const said = await behind.ask(now.closest("form"));
      judged(now, said);
      if (said) await behind.shade(now.closest("form"), now.querySelector("[data-judged]"));
    }, 90);
  };
  now.addEventListener("input", (event) => {
    pair(event);
    shape(now);
    // What is changed in a scheme is meant to be set by it.
    const sets = event.target.closest(".scheme-line")?.querySelector("[name=sets]");
    if (sets && sets !== event.target) sets.checked = true;
    attempt();
  });
  now.querySelectorAll("[data-take]").forEach((b) => b.addEventListener("click", () => {
    const field = b.closest("[data-of]").querySelector("[data-any]");
    field.value = b.dataset.take;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }));
  looking = { now, asking };
  attempt();
}
// A way out that is pointed at: what the same choice comes to with it.
let looking = null;
function looksAt(way) {
  if (!looking?.now.isConnected) return;
  const { now, asking } = looking;
  const look = async (extra) => {
    const trial = await asking.ask(now.closest("form"), extra);
    if (trial && now.isConnected) await tried(now, trial);
  };
  for (const on of ["pointerenter", "focusin"]) way.addEventListener(on, () => look({ mend: way.dataset.tryAs }));
  for (const off of ["pointerleave", "focusout"]) way.addEventListener(off, () => look({}));
}
async function tried(now, trial) {
  const line = now.querySelector("[data-refused]");
  if (line) line.textContent = trial.refusal ? `${trial.refusal} ${trial.mend}` : "";
  if (!Object.keys(trial.css).length) return;
  frames.values(trial);
  const colors = Object.keys(trial.candidates);
  const color = colors.length && !now.dataset.banded ? trial.now : null;
  frames.show(JSON.parse(now.dataset.marks), { color, reveal: false });
  if (!colors.length) return;
  await frames.whenReady();
  const answers = await frames.measure(Object.values(trial.candidates), trial.probes);
  colors.forEach((value, i) => {
    const place = now.querySelector(`[data-take="${CSS.escape(value)}"] .ratio`);
    const said = words(answers[i]);
    if (place) {
      place.textContent = said ? said.short : "";
      place.className = "ratio" + (said?.state === "breaks" ? " state-breaks" : "");
    }
  });
  judged(now, words(answers[colors.indexOf(trial.now)]), "No text on this page stands on it or is painted by it.");
}
function judged(now, said, otherwise = "") {
  const line = now.querySelector("[data-judged]");
  line.className = "reading " + (said ? `state-${said.state}` : "quiet");
  line.textContent = said ? said.long : otherwise;
}
function shape(now) {
  for (const d of now.querySelectorAll("[data-default]")) {
    const how = d.querySelector("[data-how-field]")?.value ?? "own";
    d.querySelectorAll("[data-of]").forEach((part) => { part.hidden = part.dataset.of !== how; });
    const way = d.querySelector("[data-way]")?.value ?? "same";
    const by = d.querySelector("[data-by]");
    if (by) by.hidden = way === "same" || way === "readable";
    const mixed = d.querySelector("[data-with]");
    if (mixed) mixed.hidden = way !== "mixed";
  }
  for (const m of now.querySelectorAll("[data-modes]")) {
    const mode = m.querySelector("input[type=radio]:checked")?.value;
    m.querySelectorAll("[data-mode]").forEach((part) => { part.hidden = part.dataset.mode !== mode; });
  }
}
function swatches(now) {
  now.querySelectorAll("[data-add-color]").forEach((b) => b.addEventListener("click", () => {
    const area = b.closest("[data-mode]").querySelector("[data-swatch-lines]");
    const lines = area.value.split("\n").map((l) => l.trim()).filter(Boolean);
    if (!lines.some((l) => l.split(" ")[0] === b.dataset.addColor)) area.value = [...lines, b.dataset.addColor].join("\n");
    area.dispatchEvent(new Event("input", { bubbles: true }));
  }));
  if (!now.dataset.try) now.addEventListener("input", (event) => { pair(event); shape(now); });
}
// The uses of a colour, to be lifted together.
function uses(now) {
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
  const own = () => frames.show(JSON.parse(now.dataset.marks), { color: now.dataset.color, reveal: false });
  now.querySelector(".uses")?.addEventListener("pointerleave", own);
  // What was computed from the colour, by how it was.
  const relatives = [...now.querySelectorAll("[data-relative]")];
  relatives.forEach((box) => {
    const only = () => frames.show(JSON.parse(box.dataset.relative), { reveal: true });
    box.closest("label").addEventListener("pointerenter", only);
    box.addEventListener("focus", only);
  });
  now.querySelector(".relatives")?.addEventListener("pointerleave", own);
  now.querySelector("[data-all-relatives]")?.addEventListener("click", () => {
    const on = relatives.some((b) => !b.checked);
    relatives.forEach((b) => { b.checked = on; });
  });
  count();
}

document.body.addEventListener("htmx:afterSwap", (event) => {
  if (card?.contains(event.detail.target)) event.detail.target.querySelectorAll("[data-try-as]").forEach(looksAt);
  if (event.detail.target.id === "card") {
    frames.values();
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
// The order of settings: dragged, or with Alt and an arrow.
const ordered = document.querySelector("table.ordered");
function move(key, before) {
  const values = { key, before, base: ordered.dataset.base, _csrf: document.querySelector("input[name=_csrf]").value };
  htmx.ajax("POST", ordered.dataset.move, { target: "#notice", swap: "innerHTML", values });
}
let dragged = null;
ordered?.addEventListener("dragstart", (event) => {
  dragged = event.target.closest("tr.pick");
  event.dataTransfer.effectAllowed = "move";
});
ordered?.addEventListener("dragover", (event) => {
  const over = event.target.closest("tr.pick");
  if (!dragged || !over || over === dragged) return;
  event.preventDefault();
  ordered.querySelectorAll(".drop-here").forEach((r) => r.classList.remove("drop-here"));
  over.classList.add("drop-here");
});
ordered?.addEventListener("drop", (event) => {
  const over = event.target.closest("tr.pick");
  if (!dragged || !over || over === dragged) return;
  event.preventDefault();
  move(dragged.dataset.row, over.dataset.row);
});
ordered?.addEventListener("dragend", () => {
  dragged = null;
  ordered.querySelectorAll(".drop-here").forEach((r) => r.classList.remove("drop-here"));
});
ordered?.addEventListener("keydown", (event) => {
  if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
  event.preventDefault();
  event.stopPropagation();
  const button = event.target.closest("tr.pick")?.querySelector(`[data-by="${event.key === "ArrowUp" ? -1 : 1}"]`);
  if (button) {
    button.click();
    return;
  }
  const rows = [...ordered.querySelectorAll("tr.pick")];
  const at = rows.indexOf(event.target.closest("tr.pick"));
  // Down means: the next one comes before this one.
  if (event.key === "ArrowUp" && at > 0) move(rows[at].dataset.row, rows[at - 1].dataset.row);
  if (event.key === "ArrowDown" && at >= 0 && rows[at + 1]) move(rows[at + 1].dataset.row, rows[at].dataset.row);
}, true);

// Many at once.
const each = document.querySelector("[data-each]");
function ticked() {
  const count = document.querySelectorAll("input[form=each]:checked").length;
  each.hidden = count === 0;
  each.querySelector("[data-ticked]").textContent = count;
  each.querySelector("[data-place-field]").hidden = each.elements.what.value !== "place";
}
if (each) {
  document.querySelector(".ledger").addEventListener("change", ticked);
  ticked();
}

// The strip: its widths, and one frame at full size.
const widths = document.querySelector("[data-widths]");
widths?.querySelectorAll("[data-set-widths]").forEach((b) => b.addEventListener("click", () => { widths.elements.widths.value = b.dataset.setWidths; }));
widths?.addEventListener("submit", (event) => {
  event.preventDefault();
  const list = widths.elements.widths.value.trim().split(/[\s,]+/).map(Number);
  if (list.length < 1 || list.length > 5 || list.some((w) => !Number.isInteger(w) || w < 200 || w > 4000)) {
    widths.querySelector("[data-widths-problem]").textContent = "Write one to five whole numbers from 200 to 4000.";
    return;
  }
  document.cookie = `calm-strip=${list.join("-")}${widths.elements.together.checked ? "-t" : ""};path=/;max-age=31536000;samesite=lax`;
  location.reload();
});
function whole(figure) {
  const was = figure.classList.contains("full");
  document.querySelectorAll(".full").forEach((f) => f.classList.remove("full"));
  figure.classList.toggle("full", !was);
  figure.querySelector("[data-full]").textContent = was ? "full size" : "back";
  frames.fit();
}
strip?.addEventListener("click", (event) => {
  const button = event.target.closest("[data-full]");
  if (button) whole(button.closest("figure"));
});
addEventListener("keydown", (event) => {
  const figure = document.querySelector(".full");
  if (event.key === "Escape" && figure) whole(figure);
});

const search = document.querySelector("[data-search]");
search?.addEventListener("input", () => {
  const wanted = search.value.trim().toLowerCase();
  let left = 0;
  for (const row of document.querySelectorAll("tr.pick")) {
    row.hidden = wanted !== "" && !row.dataset.words.toLowerCase().includes(wanted);
    left += row.hidden ? 0 : 1;
  }
  for (const group of document.querySelectorAll("tbody")) group.hidden = wanted !== "" && group.querySelectorAll("tr.pick:not([hidden])").length === 0;
  const none = document.querySelector("[data-none-found]");
  if (none) none.hidden = left > 0;
});

// The frames as people with another colour vision see them; numbers stay what they are. G. M. Machado, M. M. Oliveira, L. A. F. Fernandes
// 2009, severity 1.0, on linear sRGB; from memory, each row adds up to 1.
const VISIONS = {
  "usual colour vision": null,
  protanopia: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  deuteranopia: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  tritanopia: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
};
let vision = "";
function see(wanted) {
  vision = Object.hasOwn(VISIONS, wanted) ? wanted : Object.keys(VISIONS)[0];
  const name = document.querySelector("[data-vision-name]");
  if (!name) return;
  name.textContent = vision;
  sessionStorage.setItem("vision", vision);
  frames.see(VISIONS[vision]);
}
const seeNext = () => see(Object.keys(VISIONS)[(Object.keys(VISIONS).indexOf(vision) + 1) % Object.keys(VISIONS).length]);
document.querySelector("[data-vision-next]")?.addEventListener("click", seeNext);
see(sessionStorage.getItem("vision"));

let outlinesHidden = false;
addEventListener("calm:key", ({ detail }) => {
  if (detail === "w") document.getElementById("widths")?.showModal();
  if (detail === "v") seeNext();
  if (detail === "o") frames.hide(outlinesHidden = !outlinesHidden);
  if (detail === "/") (search || document.querySelector("[data-search-all]"))?.focus();
  if (detail === "p" && desk) lookAt(card.querySelector("[data-part]")?.dataset.at || ROOT).then(() => card.querySelector("[data-go]:not(:disabled)")?.focus());
});
showCard(current()?.dataset.reveal === "true");
const asked = new URLSearchParams(location.search).get("at");
if (desk && asked) lookAt(asked);

// Where parts are, what lies behind texts, and what is wider than its window is told once the pages are measured, which goes on while one
// looks at the rest. A view that needs it begins by itself.
const measuring = document.querySelector("[data-unmeasured], [data-measures]");
const measureLine = document.querySelector("[data-measure-line]");
const promises = measuring?.matches("[data-measures]");
if ((measuring?.dataset.unmeasured || promises) && measureLine) {
  const parts = new URLSearchParams(location.search).get("view") === "parts";
  const all = async () => {
    try {
      let news = await measureMissing(measuring, (page, i, all) => { measureLine.textContent = `Measuring: page ${i + 1} of ${all}.`; }) > 0;
      // What settings do to boxes is looked at where promises are, which it decides.
      if (promises) {
        const more = await measureVaried(measuring, (i, all) => {
          measureLine.hidden = false;
          measureLine.textContent = `Measuring with other values of settings: ${i + 1} of ${all}.`;
        });
        news ||= more;
      }
      if (!news) return;
      measureLine.hidden = false;
      // Nothing is typed where the parts are listed.
      if (parts && !current()) return location.reload();
      measureLine.replaceChildren(Object.assign(document.createElement("a"), { href: location.href, textContent: "Pages are measured: show what was found." }));
    } catch (problem) {
      measureLine.textContent = problem.message;
    }
  };
  measureLine.hidden = !measuring.dataset.unmeasured;
  measureLine.querySelector("button").addEventListener("click", all);
  if (parts && measuring.dataset.unmeasured?.split("|").includes(pagePick.value) || promises) all();
}
// The panel of a part whose text cannot be told without boxes has its page measured, and tells it then.
addEventListener("htmx:afterSettle", ({ target }) => {
  const button = card?.querySelector("[data-measure-now]");
  if (!button || !card.contains(target)) return;
  const line = button.parentElement;
  line.textContent = "Its page is being measured: how it reads is told then.";
  measuredOnce(measuring, button.dataset.page).then(
    () => {
      const left = measuring.dataset.unmeasured.split("|").filter((page) => page !== button.dataset.page);
      measuring.dataset.unmeasured = left.join("|");
      if (!left.length) measureLine.hidden = true;
      const reads = line.closest(".reads");
      if (reads?.isConnected) htmx.trigger(reads, "again");
    },
    (problem) => { line.textContent = problem.message; });
});
card?.addEventListener("click", ({ target }) => {
  const go = target.closest(".reads [data-go]");
  if (go) lookAt(go.dataset.go, go.closest("[data-part]").dataset.width);
});
