// The shelf of an owner's pictures: what must stay in sight of each is marked on it.
import { subjectBox } from "./subject.js";

for (const form of document.querySelectorAll("[data-subject-form]")) {
  const marking = form.closest("[data-marking]");
  subjectBox(form, marking.querySelector("[data-image]"), marking.querySelector("[data-subject]"));
}
// Who comes by a link to one picture comes to mark it.
const open = () => {
  const [, row] = /^#(picture-\d+)-mark$/.exec(location.hash) ?? [];
  const marking = row && document.getElementById(row)?.querySelector("[data-marking]");
  if (!marking) return;
  marking.open = true;
  marking.scrollIntoView({ block: "nearest" });
};
addEventListener("hashchange", open);
open();
