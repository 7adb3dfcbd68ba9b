// Lists of items in forms: added, removed and ordered, by mouse and by keys. What is sent are the fields, and their order in one more.
import { say } from "./say.js";
const changed = (items) => {
  const order = items.querySelector(":scope > [data-order]");
  order.value = [...items.querySelectorAll(":scope > [data-item-list] > [data-item]")].map((i) => i.dataset.item).join(",");
  limits(items);
  order.dispatchEvent(new Event("input", { bubbles: true }));
  order.dispatchEvent(new Event("change", { bubbles: true }));
};
const limits = (items) => {
  const all = items.querySelectorAll(":scope > [data-item-list] > [data-item]");
  items.querySelector(":scope > [data-item-add]").disabled = all.length >= Number(items.dataset.most);
  all.forEach((item, i) => {
    item.querySelector("[data-item-remove]").disabled = all.length <= Number(items.dataset.least);
    item.querySelector('[data-item-move="-1"]').disabled = i === 0;
    item.querySelector('[data-item-move="1"]').disabled = i === all.length - 1;
  });
};
const each = (root) => root.querySelectorAll?.("[data-items]").forEach(limits);

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-item-add], [data-item-remove], [data-item-move]");
  const items = button?.closest("[data-items]");
  if (!items) return;
  // A button in a summary would open and close it.
  event.preventDefault();
  const list = items.querySelector(":scope > [data-item-list]");
  const item = button.closest("[data-item]");
  if (button.matches("[data-item-add]")) {
    const next = 1 + Math.max(-1, ...[...list.children].map((i) => Number(i.dataset.item)));
    const made = items.querySelector(":scope > template").content.querySelector("[data-item]").cloneNode(true);
    for (const e of [made, ...made.querySelectorAll("*")]) {
      for (const name of ["name", "data-item", "id", "for", "list"]) {
        if (e.hasAttribute(name)) e.setAttribute(name, e.getAttribute(name).replace(/(^|\.)9999(?=\.|$)/, `$1${next}`));
      }
    }
    made.open = true;
    list.append(made);
    changed(items);
    made.querySelector("input:not([type=radio]), textarea")?.focus();
  } else if (button.matches("[data-item-remove]")) {
    const near = item.nextElementSibling ?? item.previousElementSibling;
    item.remove();
    changed(items);
    (near?.querySelector("summary") ?? items.querySelector("[data-item-add]")).focus();
  } else {
    const by = Number(button.dataset.itemMove);
    const other = by < 0 ? item.previousElementSibling : item.nextElementSibling;
    if (!other) return;
    if (by < 0) other.before(item);
    else other.after(item);
    changed(items);
    (button.disabled ? item.querySelector(`[data-item-move="${-by}"]`) : button).focus();
  }
});
document.addEventListener("input", (event) => {
  const item = event.target.closest("[data-item]");
  const first = item?.querySelector("input.form-control:not([name$='.alt']):not([name$='.link']), textarea");
  if (first && event.target === first) item.querySelector("[data-item-title]").textContent = first.value.slice(0, 40) || say("without-words");
});
document.addEventListener("htmx:afterSettle", (event) => each(event.target));
each(document);
