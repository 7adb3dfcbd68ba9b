// The owner's side: choices show at once in the preview and are kept in the draft; nothing goes live by itself.
import { Asking, Frames, later, pair, words } from "./frames.js";

const screen = document.querySelector("[data-screen]");
const slip = document.getElementById("slip");
const frames = new Frames(screen, { onOpen: (page) => frames.open(page) });

function fitHeight() {
  screen.dataset.height = Math.max(120, screen.parentElement.clientHeight - 2);
  frames.fit();
}
new ResizeObserver(fitHeight).observe(screen.parentElement);
fitHeight();

const questions = () => [...slip.querySelectorAll("[data-question]")];
const chosen = (q) => q.querySelector("input[type=radio]:checked")?.value ?? q.querySelector("[data-any]")?.value ?? "";
const asking = new Map();

// What the answer to one question would make of the site, before it is kept.
async function attempt(form, reveal = false) {
  const q = form.closest("[data-question]");
  if (!asking.has(form)) asking.set(form, new Asking(q.dataset.try));
  const trial = await asking.get(form).ask(form);
  if (!trial) return;
  const line = q.querySelector(".reading");
  if (trial.refusal) {
    line.textContent = trial.refusal;
    line.className = "reading state-breaks";
    return;
  }
  if (reveal) frames.values(trial);
  await judge(q, trial, line);
}

// Says beside each choice how well the text reads that stands on it.
async function judge(q, trial, line) {
  const colors = Object.keys(trial.candidates);
  line.textContent = "";
  if (!colors.length) return;
  await frames.whenReady();
  const answers = await frames.measure(Object.values(trial.candidates), trial.probes);
  colors.forEach((value, i) => {
    const place = q.querySelector(`input[type=radio][value="${CSS.escape(value)}"]`)?.closest("label").querySelector(".ratio");
    const said = words(answers[i]);
    if (!place) return;
    place.textContent = said ? said.short : "";
    place.className = "ratio" + (said?.state === "breaks" ? " state-breaks" : "");
  });
  const said = words(answers[colors.indexOf(trial.now)]);
  line.textContent = said ? said.long : "";
  line.className = "reading" + (said ? ` state-${said.state}` : "");
}
const judgeAll = () => questions().filter((q) => q.dataset.kind === "color").forEach((q) => attempt(q.querySelector("[data-answer]")));

function show(q, reveal = true) {
  frames.show(JSON.parse(q.dataset.marks), { color: q.dataset.kind === "color" ? chosen(q) : null, reveal, sure: true });
}

slip.addEventListener("input", (event) => {
  const form = event.target.closest("[data-answer]");
  if (!form) return;
  pair(event);
  attempt(form, true);
  show(form.closest("[data-question]"), false);
});

slip.addEventListener("focusin", (event) => {
  const q = event.target.closest("[data-question]");
  if (q) show(q);
});

// Places
const chips = [...document.querySelectorAll("[data-place]")];
function openPlace(key) {
  chips.forEach((c) => c.setAttribute("aria-pressed", c.dataset.place === key));
  slip.querySelectorAll("[data-in-place]").forEach((section) => { section.hidden = section.dataset.inPlace !== key; });
  sessionStorage.setItem("place", key);
  const marks = questions().filter((q) => !q.closest("[hidden]")).flatMap((q) => JSON.parse(q.dataset.marks));
  frames.show(marks, { reveal: true, sure: true });
}
chips.forEach((c) => c.addEventListener("click", () => openPlace(c.dataset.place)));

// Widths
const widths = [...document.querySelectorAll("[data-to-width]")];
function toWidth(button) {
  widths.forEach((w) => w.setAttribute("aria-pressed", w === button));
  frames.windows[0].dataset.width = button.dataset.toWidth;
  frames.fit();
  frames.again("values");
}
widths.forEach((w) => w.addEventListener("click", () => toWidth(w)));
toWidth(matchMedia("(max-width: 767px)").matches ? widths[0] : widths[1]);

// A choice that others depend on brings their questions, or takes them away.
document.body.addEventListener("htmx:afterRequest", ({ detail }) => {
  if (!detail.successful || !detail.elt.matches("[data-answer]")) return;
  screen.dataset.base = document.getElementById("state").dataset.preview;
});

function start() {
  later(slip);
  const remembered = sessionStorage.getItem("place");
  const first = chips.find((c) => c.dataset.place === remembered) ?? chips[0];
  if (first) openPlace(first.dataset.place);
}
frames.onReady = () => judgeAll();
// After undo, redo and put back the server sends the slip anew.
document.body.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id === "slip") {
    asking.clear();
    frames.reload(screen.dataset.base = document.getElementById("state").dataset.preview);
    start();
  }
});
addEventListener("calm:key", ({ detail }) => { if (detail === "o") frames.hide(frames.hidden = !frames.hidden); });
start();
