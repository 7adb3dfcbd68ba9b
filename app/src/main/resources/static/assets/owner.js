// The owner's side: choices show at once in the preview and are kept in the draft; nothing goes live by itself.
import "./area.js";
import "./background.js";
import "./bring.js";
import "./items.js";
import "./take.js";
import { Asking, Behind, Frames, later, pair, plainWords, words } from "./frames.js";
import { Keeping } from "./keeping.js";
import { safeParts } from "./safe.js";
import { say } from "./say.js";

const screen = document.querySelector("[data-screen]");
const slip = document.getElementById("slip");
const frames = new Frames(screen, { onOpen: (page) => frames.open(page), onOpened: (page) => {
  const pick = document.getElementById("page-pick");
  if (pick) pick.value = page;
} });

function fitHeight() {
  screen.dataset.height = Math.max(120, screen.parentElement.clientHeight - 2);
  frames.fit();
}
new ResizeObserver(fitHeight).observe(screen.parentElement);
fitHeight();

// Where the head has no room for all of it on its line, as in languages of long words, the rest stands behind “More” as on phones.
const head = document.querySelector("header.top");
function fitHead() {
  head.classList.remove("tight");
  const [brand, end] = [head.querySelector(".brand"), head.querySelector(".end")];
  head.classList.toggle("tight", end.offsetTop >= brand.offsetTop + brand.offsetHeight);
}
new ResizeObserver(fitHead).observe(head);
new MutationObserver(fitHead).observe(head, { childList: true, subtree: true });

const questions = () => [...slip.querySelectorAll("[data-question]")];
const chosen = (q) => q.querySelector("input[type=radio]:checked")?.value ?? q.querySelector("[data-any]")?.value ?? "";
let openNow = "";
const many = Boolean(slip.querySelector("[data-at]"));
let ready = false;
const asking = new Map();
const behind = new Map();

// What the answer to one question would make of the site, before it is kept.
async function attempt(form, reveal = false) {
  const q = form.closest("[data-question]");
  if (!asking.has(form)) asking.set(form, new Asking(q.dataset.try));
  const trial = await asking.get(form).ask(form);
  if (!trial) return;
  const line = q.querySelector(".reading");
  // Of several fields of a form those that can be read are shown, whatever another one holds.
  if (reveal && Object.keys(trial.css).length) frames.values(trial);
  if (trial.refusal) {
    line.textContent = trial.refusal;
    line.className = "reading state-breaks";
    return;
  }
  if (!q.dataset.behind) return judge(q, trial, line);
  if (!behind.has(form)) behind.set(form, new Behind(q.dataset.behind, frames));
  // All questions may come anew while it is asked.
  const asks = behind.get(form);
  const said = plainWords(await asks.ask(form));
  read(line, said);
  sight(form, line, asks.lost);
  if (said) await asks.shade(form, line);
}

// What was marked of the picture and is not seen, and the place of the picture that mends it.
function sight(form, line, lost) {
  if (!lost) return;
  const said = document.createElement("p");
  said.className = "mb-0 state-breaks";
  said.dataset.lostSight = "";
  said.textContent = `${lost.said} `;
  const field = form.elements["v.position"];
  if (field && lost.position) {
    const move = document.createElement("button");
    move.type = "button";
    move.className = "plain link small";
    move.textContent = lost.how;
    move.addEventListener("click", () => {
      field.value = lost.position;
      for (const type of ["input", "change"]) field.dispatchEvent(new Event(type, { bubbles: true }));
      field.focus();
    });
    said.append(move);
  }
  line.append(said);
}

// What it means, and the numbers behind a tap.
function read(line, said) {
  line.textContent = said ? said.long : "";
  line.className = "reading" + (said ? ` state-${said.state}` : "");
  if (!said?.numbers) return;
  const more = document.createElement("button");
  more.type = "button";
  more.className = "plain link small";
  more.textContent = say("numbers");
  more.setAttribute("aria-label", say("of", say("numbers"), line.closest("[data-question]").querySelector("h3").textContent));
  more.addEventListener("click", () => more.replaceWith(said.numbers));
  line.append(" ", more);
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
    const said = plainWords(words(answers[i]));
    if (!place) return;
    place.textContent = said ? said.short : "";
    place.className = "ratio" + (said?.state === "breaks" ? " state-breaks" : "");
  });
  read(line, plainWords(words(answers[colors.indexOf(trial.now)])));
}
// All colours with one question to the server, or those of the place that is open where there are very many; each comes as what
// it changes of what is shown now.
const judging = new Asking(slip.dataset.judge);
async function judgeAll() {
  document.getElementById("judging").elements.place.value = many ? openNow : "";
  const judged = await judging.ask(document.getElementById("judging"));
  if (!judged) return;
  const whole = (css) => judged.css + css;
  for (const { key, candidates, probes, now } of judged.colors) {
    const q = questions().find((x) => x.dataset.key === key);
    if (!q || keeping.waiting.has(`${key}|`)) continue;
    const all = Object.fromEntries(Object.entries(candidates).map(([color, css]) => [color, whole(css)]));
    await judge(q, { candidates: all, probes: probes.map(whole), now }, q.querySelector(".reading"));
  }
  safeParts(`${slip.dataset.safe}?place=${encodeURIComponent(many ? openNow : "")}`, () => slip.querySelectorAll("[data-answer]"));
}

function show(q, reveal = true) {
  frames.show(JSON.parse(q.dataset.marks), { color: q.dataset.kind === "color" ? chosen(q) : null, reveal, sure: true });
}

slip.addEventListener("input", (event) => {
  const form = event.target.closest("[data-answer]");
  if (!form) return;
  pair(event);
  attempt(form, true);
  show(form.closest("[data-question]"), false);
  elsewhere(form);
  asksForWords(event.target, form);
});

// A picture that is chosen asks for its description, where one is shown with it: the old words speak of the old picture.
const describes = new Map((slip.dataset.describes || "").split(" ").filter(Boolean).map((pair) => pair.split("=")));
function asksForWords(field, form) {
  if (field.type !== "radio" || !field.closest(".pictures")) return;
  const own = field.name.split(".").pop();
  const words = describes.get(own === "v" ? form.elements.key.value : own);
  if (!words) return;
  const find = () => (own === "v"
    ? questions().find((q) => q.dataset.key === words)?.querySelector("[name='v']")
    : form.elements[field.name.replace(/[^.]+$/, words)]);
  const target = find();
  if (!target) return;
  const host = field.closest(".pictures");
  host.nextElementSibling?.matches("[data-wants-words]") && host.nextElementSibling.remove();
  if (!field.value) return;
  const line = document.createElement("p");
  line.className = "small mb-1";
  line.dataset.wantsWords = "";
  line.role = "status";
  line.textContent = `${target.value ? say("described", target.value) : say("described.not")} `;
  const go = document.createElement("button");
  go.type = "button";
  go.className = "plain link small";
  go.textContent = say("say-it");
  go.addEventListener("click", () => {
    const there = find();
    const place = there.closest("[data-in-place]")?.dataset.inPlace;
    if (place && place !== openNow) openPlace(place);
    there.focus();
    there.select?.();
    line.remove();
  });
  line.append(go);
  host.after(line);
}

// What is changed for a width that is not shown says so, and offers that width.
function elsewhere(form) {
  const q = form.closest("[data-question]");
  const [phone, wide] = widths;
  const shown = frames.windows.map((frame) => frames.band(frame));
  const band = form.dataset.band;
  const isAway = band ? !shown.includes(band) : shown.every((now) => q.querySelector(`[data-own-band="${CSS.escape(now)}"]`));
  const other = phone.getAttribute("aria-pressed") === "true" ? wide : phone;
  q.querySelector("[data-elsewhere]")?.remove();
  if (!isAway) return;
  const line = document.createElement("p");
  line.className = "small quiet mb-1";
  line.dataset.elsewhere = "";
  line.role = "status";
  const shows = !band || frames.bandAt(Number(other.dataset.toWidth)) === band;
  line.textContent = `${say(band ? "another-width" : "own-value")} `;
  if (shows) {
    const go = document.createElement("button");
    go.type = "button";
    go.className = "plain link small";
    go.textContent = say("show", other.textContent.trim());
    go.addEventListener("click", () => { toWidth(other); line.remove(); });
    line.append(go);
  }
  form.after(line);
}

slip.addEventListener("focusin", (event) => {
  const q = event.target.closest("[data-question]");
  if (q) show(q);
});

// Places
const chips = [...document.querySelectorAll("[data-place]")];
// Of a site with very many questions those of a place come when it is opened.
async function bring(place) {
  const answer = await fetch(place.dataset.at, { headers: { "HX-Request": "true" } }).catch(() => null);
  if (!place.isConnected) return;
  // Who was signed out is led to another page, which does not belong here.
  if (!answer?.ok || answer.redirected) {
    place.firstElementChild.textContent = say("choose-again");
    return;
  }
  const key = place.dataset.inPlace;
  htmx.swap(place, await answer.text(), { swapStyle: "outerHTML", swapDelay: 0, settleDelay: 0 });
  later(slip);
  fold();
  keeping.restore();
  if (openNow === key) openPlace(key);
}
function openPlace(key) {
  openNow = key;
  chips.forEach((c) => c.setAttribute("aria-pressed", c.dataset.place === key));
  chips.find((c) => c.dataset.place === key)?.scrollIntoView({ block: "nearest", inline: "nearest" });
  slip.querySelectorAll("[data-in-place]").forEach((section) => { section.hidden = section.dataset.inPlace !== key; });
  sessionStorage.setItem("place", key);
  const there = slip.querySelector(`[data-in-place="${CSS.escape(key)}"][data-at]`);
  if (there) return bring(there);
  // A section stands on one page: that one is shown.
  const page = chips.find((c) => c.dataset.place === key)?.dataset.onPage;
  if (page && page !== screen.dataset.page) frames.open(page);
  frames.askable(questions().map((q) => [q.dataset.key, [...new Set(JSON.parse(q.dataset.marks).map((m) => m.selector))]]));
  const marks = questions().filter((q) => !q.closest("[hidden]")).flatMap((q) => JSON.parse(q.dataset.marks));
  frames.show(marks, { reveal: true, sure: true });
  for (const q of questions().filter((x) => x.dataset.behind && !x.closest("[hidden]"))) attempt(q.querySelector("[data-answer]"));
  if (many && ready) judgeAll();
}
chips.forEach((c) => c.addEventListener("click", () => openPlace(c.dataset.place)));

// A tap on a part of the page leads to its first question, in whatever place that is.
function toQuestion(key) {
  const q = questions().find((x) => x.dataset.key === key);
  if (!q) return;
  const place = q.closest("[data-in-place]").dataset.inPlace;
  if (place !== openNow) openPlace(place);
  const around = q.closest("[data-fold]");
  if (around) {
    around.open = true;
    folds.set(around.dataset.fold, true);
  }
  q.scrollIntoView({ block: "start", behavior: "instant" });
  const title = q.querySelector("h3");
  title.tabIndex = -1;
  title.focus({ preventScroll: true });
}
frames.onAsked = ([key]) => toQuestion(key);
slip.addEventListener("click", ({ target }) => {
  const link = target.closest("[data-to-question]");
  if (link) toQuestion(link.dataset.toQuestion);
});
const pagePick = document.getElementById("page-pick");
pagePick?.addEventListener("change", () => frames.open(pagePick.value));

// Widths
const widths = [...document.querySelectorAll("[data-to-width]")];
function toWidth(button) {
  widths.forEach((w) => w.setAttribute("aria-pressed", w === button));
  const list = button.dataset.toWidth.split(" ").map(Number);
  screen.dataset.together = list.length > 1;
  frames.toWidths(list);
}
widths.forEach((w) => w.addEventListener("click", () => toWidth(w)));
toWidth(matchMedia("(max-width: 767px)").matches ? widths[0] : widths[1]);

// Keeping what is answered. The words of the server replace the state, or all questions where some come or go.
const notice = document.getElementById("notice");
const told = (text) => {
  const box = document.createElement("div");
  box.className = "notice notice-kept";
  box.textContent = text;
  notice.replaceChildren(box);
};
const said = (text, mend) => {
  const box = document.createElement("div");
  box.className = "notice notice-bad";
  box.role = "alert";
  box.dataset.lost = "";
  const strong = document.createElement("b");
  strong.textContent = text;
  box.append(strong, ` ${mend}`);
  notice.replaceChildren(box);
};
const keeping = new Keeping(slip, {
  onNote: () => document.querySelector("[data-go-live]")?.classList.add("btn-main"),
  onKept: () => judgeAll(),
  show: ({ ok, text, retarget, lost, signedOut, offline, back }) => {
    if (back) return notice.querySelector("[data-lost]") && told(say("back"));
    if (lost && offline) return said(say("no-line"), say("kept-here"));
    if (lost && signedOut) return said(say("signed-out"), say("signed-out.still"));
    if (lost) return said(say("no-answer"), say("sent-again"));
    if (!ok) return htmx.swap(notice, text, { swapStyle: "innerHTML", swapDelay: 0, settleDelay: 0 });
    if (retarget) return asNew(text);
    newState(text);
    screen.dataset.base = document.getElementById("state").dataset.preview;
  },
});
// What is open in the head stays open, and what has the focus there keeps it: this comes while somebody is about to press something.
function newState(text) {
  const more = document.querySelector("#more:popover-open");
  const all = () => [...document.querySelectorAll("#state a, #state button")];
  const at = all().indexOf(document.activeElement);
  htmx.swap(document.getElementById("state"), text, { swapStyle: "outerHTML", swapDelay: 0, settleDelay: 0 });
  if (more) document.getElementById("more").showPopover();
  if (at >= 0) all()[at]?.focus({ preventScroll: true });
}
function asNew(text) {
  const at = document.activeElement;
  const where = slip.contains(at) && at.form ? [at.form.elements.key?.value, at.form.elements.band?.value ?? "", at.name, at.value] : null;
  htmx.swap(slip, text, { swapStyle: "innerHTML", swapDelay: 0, settleDelay: 0 });
  renewed();
  if (!where) return;
  const form = [...slip.querySelectorAll("[data-answer]")].find((f) => f.elements.key.value === where[0] && (f.elements.band?.value ?? "") === where[1]);
  const field = form && [...form.elements].find((f) => f.name === where[2] && (f.type !== "radio" || f.value === where[3]));
  field?.focus({ preventScroll: true });
}

// What somebody has folded out or in stays so, however often the server sends the slip.
const folds = new Map();
slip.addEventListener("click", ({ target }) => {
  const details = target.closest("summary")?.parentElement;
  // It opens or closes once all have heard of the click.
  if (details?.dataset.fold) folds.set(details.dataset.fold, !details.open);
});
function fold() {
  for (const details of slip.querySelectorAll("[data-fold]")) details.open = folds.get(details.dataset.fold) ?? details.open;
}
function start() {
  fold();
  later(slip);
  const remembered = sessionStorage.getItem("place");
  const first = chips.find((c) => c.dataset.place === remembered) ?? chips[0];
  if (first) openPlace(first.dataset.place);
  early();
}
// Who types at once is sooner than this script: what was written meanwhile is shown and kept like all that comes later.
function early() {
  for (const form of slip.querySelectorAll("[data-answer]")) {
    const written = [...form.elements].some((f) => f.name && f.type !== "hidden"
      && (f.type === "radio" || f.type === "checkbox" ? f.checked && !f.defaultChecked
        : (f.localName === "input" || f.localName === "textarea") && f.value !== f.defaultValue));
    if (!written) continue;
    keeping.note(form);
    attempt(form, true);
  }
}
frames.onReady = () => { ready = true; judgeAll(); };
// After undo, redo and put back the server sends the slip anew.
function renewed() {
  asking.clear();
  behind.clear();
  keeping.restore();
  frames.reload(screen.dataset.base = document.getElementById("state").dataset.preview);
  start();
}
document.body.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target?.id === "slip") {
    document.getElementById("put-back").close();
    renewed();
  }
  const dialog = event.detail.target;
  if (["put-back", "hand"].includes(dialog?.id) && !dialog.open) dialog.showModal();
});
// How many are ticked, and all of a place at once.
document.getElementById("put-back").addEventListener("change", ({ target, currentTarget }) => {
  if (target.matches("[data-all-of]")) for (const box of target.closest("fieldset").querySelectorAll("[name=key]")) box.checked = target.checked;
  const ticked = currentTarget.querySelectorAll("[name=key]:checked").length;
  for (const button of currentTarget.querySelectorAll("[type=submit]")) button.disabled = !ticked;
  for (const of of currentTarget.querySelectorAll("[data-all-of]")) of.checked = [...of.closest("fieldset").querySelectorAll("[name=key]")].every((b) => b.checked);
});

// Without a line nothing leaves the page: what would come instead is the browser's own page of trouble.
const OFFLINE = [say("not-done"), say("not-done.still")];
document.addEventListener("click", (event) => {
  const link = event.target.closest("a[href]");
  if (!link || navigator.onLine || event.defaultPrevented) return;
  event.preventDefault();
  said(...OFFLINE);
});
document.body.addEventListener("htmx:sendError", () => said(...OFFLINE));
addEventListener("calm:key", ({ detail }) => { if (detail === "o") frames.hide(frames.hidden = !frames.hidden); });
start();
for (const id of keeping.recall()) if (keeping.form(id)) attempt(keeping.form(id), true);
