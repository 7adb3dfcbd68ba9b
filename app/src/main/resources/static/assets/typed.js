// What a maker has typed into a form stays in the browser until it is saved, whatever is pressed meanwhile: another row, undo,
// another page, closing the tab. It is written into the form again when that comes back, and says so.
import { fill } from "./keeping.js";

const person = document.querySelector("meta[name=calm-person]")?.content;
const PREFIX = `calm-typed-${person}|`;
const SENT = "calm-sent";
const LONGEST = 200_000;
const KEPT_FOR = 7 * 24 * 3600 * 1000;
const asSent = new WeakMap();
let lost = false;

const keeps = (form) => person && form?.getAttribute("method") === "post" && !form.matches("[data-answer], [data-not-kept]")
  && !form.querySelector("input[type=password], input[type=file]") && fields(form).length > 0;
const fields = (form) => [...form.elements].filter((f) => f.name && f.type !== "hidden" && f.localName !== "button");
const written = (form) => {
  const names = new Set(fields(form).map((f) => f.name));
  return new URLSearchParams([...new FormData(form)].filter(([name]) => names.has(name))).toString();
};
// A form is known by where it goes and what it is about; the state it was made from may change.
const key = (form) => PREFIX + form.getAttribute("action") + "|" + [...form.elements]
  .filter((f) => f.type === "hidden" && f.name && f.name !== "_csrf" && f.name !== "base").map((f) => `${f.name}=${f.value}`).join("&");

function keep(form) {
  const now = written(form);
  if (now === asSent.get(form)) {
    localStorage.removeItem(key(form));
    return;
  }
  try {
    lost = now.length > LONGEST;
    if (!lost) localStorage.setItem(key(form), JSON.stringify({ at: Date.now(), now }));
  } catch {
    lost = true;
  }
}

const offered = (field) => field.localName === "select" ? [...field.options].map((o) => o.value) : [field.value];

// A choice among what is no longer offered, since the theme has moved on, says nothing about what is offered now.
function withoutWhatIsGone(form, entries) {
  const choices = fields(form).filter((f) => ["checkbox", "radio"].includes(f.type) || f.localName === "select");
  const now = new URLSearchParams(written(form));
  let moved = false;
  for (const name of new Set(choices.map((f) => f.name))) {
    const there = new Set(choices.filter((f) => f.name === name).flatMap(offered));
    if (entries.getAll(name).every((v) => there.has(v))) continue;
    entries.delete(name);
    now.getAll(name).forEach((v) => entries.append(name, v));
    moved = true;
  }
  return moved;
}

function bring(form) {
  if (!keeps(form) || asSent.has(form)) return;
  asSent.set(form, written(form));
  const kept = JSON.parse(localStorage.getItem(key(form)) || "null");
  if (!kept || kept.now === asSent.get(form)) return;
  const entries = new URLSearchParams(kept.now);
  const moved = withoutWhatIsGone(form, entries);
  fill(form, entries);
  const line = document.createElement("p");
  line.className = "notice notice-look";
  line.dataset.typed = "";
  const leave = document.createElement("button");
  leave.type = "button";
  leave.className = "plain link end";
  leave.textContent = "Leave it";
  line.append("What you typed here is back. It is not saved yet.",
    moved ? " What there is to choose from has changed since: look at the choices again." : "", leave);
  form.prepend(line);
  leave.addEventListener("click", () => {
    form.reset();
    localStorage.removeItem(key(form));
    line.remove();
    fields(form)[0].dispatchEvent(new Event("input", { bubbles: true }));
  });
  // Whatever follows the fields follows what is in them now.
  fields(form).filter((f) => f.type !== "radio" || f.checked).slice(0, 400).forEach((f) => f.dispatchEvent(new Event("change", { bubbles: true })));
  fields(form)[0].dispatchEvent(new Event("input", { bubbles: true }));
}
const bringAll = () => document.querySelectorAll("form[method=post]").forEach(bring);

function prune() {
  for (const name of Object.keys(localStorage)) {
    if (name.startsWith("calm-typed-") && Date.now() - (JSON.parse(localStorage.getItem(name))?.at ?? 0) > KEPT_FOR) localStorage.removeItem(name);
  }
}

if (person) {
  prune();
  // What was sent from the page before is saved, unless this page says that it was not.
  const sent = sessionStorage.getItem(SENT);
  sessionStorage.removeItem(SENT);
  if (sent && !document.querySelector("[data-problem]")) localStorage.removeItem(sent);
  addEventListener("load", bringAll);
  document.body.addEventListener("htmx:afterSettle", bringAll);
  for (const type of ["input", "change"]) {
    document.addEventListener(type, (event) => {
      const form = event.target.form;
      if (event.isTrusted || type === "input") if (form && asSent.has(form) && keeps(form)) keep(form);
    });
  }
  document.addEventListener("submit", (event) => {
    const form = event.target;
    if (form.getAttribute("action")?.endsWith("/sign-out")) {
      Object.keys(localStorage).filter((name) => name.startsWith(PREFIX)).forEach((name) => localStorage.removeItem(name));
    } else if (keeps(form) && !form.hasAttribute("hx-post")) {
      sessionStorage.setItem(SENT, key(form));
    }
  });
  document.body.addEventListener("htmx:afterRequest", ({ detail }) => {
    const form = detail.requestConfig?.elt ?? detail.elt;
    // An answer that leads elsewhere is not called successful by htmx.
    if (detail.xhr.status >= 200 && detail.xhr.status < 400 && form?.localName === "form" && keeps(form)) localStorage.removeItem(key(form));
  });
  addEventListener("beforeunload", (event) => { if (lost) event.preventDefault(); });
}
