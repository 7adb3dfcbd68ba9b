// A section of one's own: three editors in place of the plain fields, tried as they are typed.
import { data } from "./answers.js";
import { edit } from "./editor.js";

const form = document.querySelector("[data-section-edit]");
const known = JSON.parse(form.dataset.known);
const frames = [...document.querySelectorAll("[data-alive]")];
const said = document.querySelector("[data-tried]");
const field = (name) => form.elements.namedItem(name);
const editors = {};
const kept = new FormData(form);
let dirty = false;

const unique = (list) => [...new Set(list)].sort();
const keys = () => unique([...field("json").value.matchAll(/"key"\s*:\s*"([a-z][\w-]*)"/g)].map((m) => m[1]));
const classes = () => unique([
  ...[...field("html").value.matchAll(/\bclass\s*=\s*["']([^"']*)["']/g)].flatMap((m) => m[1].split(/\s+/).filter(Boolean)),
  ...known.classes,
]);

// What the language itself does not know: the section's settings and classes, and the theme's.
const offers = {
  html: (before) => {
    if (/\bclass\s*=\s*["'][^"']*$/.test(before)) return classes();
    if (/\bdata-setting-[a-z]+\s*=\s*["'][^"']*$/.test(before)) return keys();
    if (/<[a-z][^<>]*\s[\w-]*$/i.test(before)) return known.bindings;
    return null;
  },
  css: (before) => {
    if (/var\(\s*[\w-]*$/.test(before)) return unique([...keys().map((k) => `--${k}`), ...known.properties]);
    if (/\.[\w-]*$/.test(before) && !/[\d)]\.[\w-]*$/.test(before)) return classes();
    return null;
  },
  json: (before) => (/"kind"\s*:\s*"[\w-]*$/.test(before) ? known.kinds : null),
};

let round = 0;
let waiting = null;
function tell(answer) {
  Object.entries(editors).forEach(([name, editor]) => {
    const here = answer.message && (answer.file || "section.json") === `section.${name}`;
    editor.problem(here ? answer.line : 1, here ? answer.message : "");
  });
  // What can be used is shown, with what the survey would find in it.
  const shown = dirty && answer.shown ? "Shown above as it is typed; nothing is kept yet. " : "";
  said.textContent = shown + answer.message;
  said.classList.toggle("state-breaks", Boolean(answer.message));
}
async function tryIt() {
  const mine = ++round;
  const body = new URLSearchParams(new FormData(form));
  const tried = await fetch(`${form.action}/try`, { method: "POST", body, headers: { Accept: "application/json" } })
    .then(data).catch(() => null);
  if (mine !== round) return;
  if (!tried) {
    said.textContent = "It could not be tried: the server does not answer as it should. What is typed stays.";
    said.classList.add("state-breaks");
    return;
  }
  tell(tried);
  // In place of what was there: each letter would be a step of the Back button otherwise.
  if (tried.shown) {
    frames.forEach((frame) => {
      frame.dataset.shown = `${frame.dataset.alive}?tried=${tried.shown}`;
      frame.contentWindow.location.replace(frame.dataset.shown);
    });
  }
}
function changed(name, text) {
  field(name).value = text;
  dirty = [...new FormData(form)].some(([k, v]) => kept.get(k) !== v);
  clearTimeout(waiting);
  waiting = setTimeout(tryIt, 350);
}

for (const place of form.querySelectorAll("[data-editor]")) {
  const name = place.dataset.editor;
  const area = field(name);
  const label = form.querySelector(`label[for="${area.id}"]`);
  area.hidden = true;
  place.hidden = false;
  editors[name] = edit({
    place,
    text: area.value,
    language: name,
    label: label.textContent,
    own: offers[name],
    changed: (text) => changed(name, text),
    keep: () => form.requestSubmit(),
  });
  // The label still leads to what is typed into.
  label.addEventListener("click", (event) => { event.preventDefault(); editors[name].focus(); });
}
document.body.addEventListener("htmx:beforeOnLoad", (event) => {
  if (event.detail.xhr.getResponseHeader("HX-Redirect")) dirty = false;
});
addEventListener("beforeunload", (event) => { if (dirty) event.preventDefault(); });
