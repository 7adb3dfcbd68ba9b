// What every page of ours has: the keys, the dialogs, copying an address, asking before what cannot be undone.
import { say } from "./say.js";

// Times on our pages are those of the reader's own clock; the next page knows of it.
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
const said = `calm-zone=${encodeURIComponent(zone)}`;
if (zone && !document.cookie.split("; ").includes(said)) document.cookie = `${said}; path=/; max-age=31536000; samesite=lax`;

const editable = (e) => e.closest?.("input, textarea, select, [contenteditable]");

addEventListener("keydown", (event) => {
  // What is typed into an editor in a shadow tree comes from the element around it, but begins inside of it.
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || editable(event.composedPath()[0])) return;
  if (event.key === "?") document.getElementById("keys")?.showModal();
  if (event.key === "u") document.querySelector("[data-key=u]")?.click();
  if (event.key === "r") document.querySelector("[data-key=r]")?.click();
  if (["o", "p", "v", "w", "/"].includes(event.key)) {
    event.preventDefault();
    dispatchEvent(new CustomEvent("calm:key", { detail: event.key }));
  }
});

document.addEventListener("click", async (event) => {
  const opener = event.target.closest("[data-open]");
  if (opener) document.getElementById(opener.dataset.open)?.showModal();
  const closer = event.target.closest("[data-close]");
  if (closer) closer.closest("dialog")?.close();
  const copy = event.target.closest("[data-copy]");
  if (copy) {
    await navigator.clipboard.writeText(copy.dataset.copy);
    copy.textContent = say("copied");
  }
  if (event.target.closest("[data-print]")) window.print();
  // Makes a change on top of what somebody else changed meanwhile.
  const rebase = event.target.closest("[data-rebase]");
  if (rebase) {
    document.querySelectorAll("input[name=base]").forEach((input) => { input.value = rebase.dataset.rebase; });
    document.getElementById("notice").replaceChildren();
    window.lastSent?.requestSubmit();
  }
  if (event.target.closest("[data-dismiss]")) document.getElementById("notice").replaceChildren();
});
document.addEventListener("submit", (event) => { window.lastSent = event.target; }, true);

// Small frames in lists are pictures: drawn to scale.
const fit = () => document.querySelectorAll("iframe[data-picture]").forEach((frame) => {
  const width = Number(frame.dataset.picture);
  const scale = frame.parentElement.clientWidth / width;
  frame.width = width;
  frame.height = Math.ceil(frame.parentElement.clientHeight / scale);
  frame.style.transform = `scale(${scale})`;
});
fit();
addEventListener("resize", fit);

// A page that asks again and again how far a work is stops asking once it was told where to go: each further answer would start
// the way there anew, and a page that takes longer than the time between two questions would never come.
let leaving = false;
document.addEventListener("htmx:beforeOnLoad", (event) => {
  if (event.detail.xhr.getResponseHeader("HX-Redirect")) leaving = true;
});
document.addEventListener("htmx:beforeRequest", (event) => {
  if (leaving && event.detail.elt.getAttribute("hx-trigger")?.startsWith("every")) event.preventDefault();
});
// Back from the browser's memory of pages.
addEventListener("pageshow", (event) => { if (event.persisted) leaving = false; });

// Of panels of one name only one may be open, and a browser shuts what comes while another is open (HTML, details name groups). What
// is about to be replaced gives its name up first, so what comes open stays open.
document.addEventListener("htmx:beforeSwap", ({ detail: { target, shouldSwap } }) => {
  if (shouldSwap) target.querySelectorAll("details[name]").forEach((panel) => panel.removeAttribute("name"));
});
