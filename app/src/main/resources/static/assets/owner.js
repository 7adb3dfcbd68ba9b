// The owner's side: choices show at once in the preview and are kept in the draft; nothing goes live by itself.
import { Frames, css, isColor, words } from "./frames.js";

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
const rule = (q, value) => css(q.dataset.key, value, q.dataset.triple === "true");

function tryAll() {
  frames.values(`:root{${questions().map((q) => { const v = chosen(q); return isColor(v) ? rule(q, v) : ""; }).join("")}}`);
}

// Says beside each choice how well the text reads that stands on it.
async function judge(q) {
  await frames.whenReady();
  const radios = [...q.querySelectorAll("input[type=radio]")];
  const values = [...radios.map((r) => r.value), chosen(q)];
  const others = questions().filter((o) => o !== q).map((o) => { const v = chosen(o); return isColor(v) ? rule(o, v) : ""; }).join("");
  const sheet = (value) => `:root{${others}${rule(q, value)}}`;
  const answers = await frames.measure(values.map(sheet), [sheet("#000000"), sheet("#ffffff")]);
  radios.forEach((radio, i) => {
    const said = words(answers[i]);
    const place = radio.closest("label").querySelector(".ratio");
    place.textContent = said ? said.short : "";
    place.className = "ratio" + (said?.state === "breaks" ? " state-breaks" : "");
  });
  const said = words(answers[answers.length - 1]);
  const line = q.querySelector(".reading");
  line.textContent = said ? said.long : "";
  line.className = "reading" + (said ? ` state-${said.state}` : "");
}

function show(q, reveal = true) {
  frames.show(JSON.parse(q.dataset.marks), { color: chosen(q), reveal, sure: true });
}

slip.addEventListener("input", (event) => {
  const q = event.target.closest("[data-question]");
  if (!q) return;
  const any = q.querySelector("[data-any]");
  if (event.target.type === "color") any.value = event.target.value;
  if (event.target === any && isColor(any.value)) {
    const picker = q.querySelector("input[type=color]");
    if (/^#[0-9a-f]{6}$/i.test(any.value.trim())) picker.value = any.value.trim();
  }
  tryAll();
  show(q, false);
  judge(q);
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
}
widths.forEach((w) => w.addEventListener("click", () => toWidth(w)));
toWidth(matchMedia("(max-width: 767px)").matches ? widths[0] : widths[1]);

function start() {
  const remembered = sessionStorage.getItem("place");
  const first = chips.find((c) => c.dataset.place === remembered) ?? chips[0];
  if (first) openPlace(first.dataset.place);
  tryAll();
}
frames.onReady = () => questions().forEach(judge);
// After undo, redo and put back the server sends the slip anew.
document.body.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id === "slip") {
    start();
    questions().forEach(judge);
  }
});
addEventListener("calm:key", ({ detail }) => { if (detail === "o") frames.hide(frames.hidden = !frames.hidden); });
start();
