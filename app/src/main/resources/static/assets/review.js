// Before and after beside each other: one page, one width, scrolled together.
import { Frames } from "./frames.js";
import { say } from "./say.js";

const screens = [...document.querySelectorAll("[data-screen]")];
const all = screens.map((screen) => new Frames(screen, { onOpen: (page) => open(page) }));
const pick = document.getElementById("review-page");

// No window is as high as a small picture of one would make it: what is as high as the window would look otherwise.
const HIGHEST = 1000;
function fit() {
  for (const [i, screen] of screens.entries()) {
    const width = Number(all[i].windows[0].dataset.width);
    const scale = Math.min(1, (screen.clientWidth - 2) / width);
    screen.dataset.height = Math.max(120, Math.min(screen.parentElement.clientHeight - 2, HIGHEST * scale));
    all[i].fit();
  }
}
screens.forEach((screen) => new ResizeObserver(fit).observe(screen.parentElement));

function open(page) {
  all.forEach((frames) => frames.open(page));
  if (pick && [...pick.options].some((o) => o.value === page)) pick.value = page;
}
pick?.addEventListener("change", () => open(pick.value));
document.querySelector("[data-submits]")?.addEventListener("change", ({ target }) => target.form.requestSubmit());

addEventListener("message", ({ source, data }) => {
  if (data?.type !== "scrolled" || typeof data.share !== "number") return;
  const from = all.find((frames) => frames.windows.some((f) => f.contentWindow === source));
  if (from) all.filter((frames) => frames !== from).forEach((frames) => frames.send({ type: "scroll", share: data.share }));
});

const widths = [...document.querySelectorAll("[data-to-width]")];
function toWidth(button) {
  widths.forEach((w) => w.setAttribute("aria-pressed", w === button));
  all.forEach((frames) => { frames.windows[0].dataset.width = button.dataset.toWidth; });
  fit();
}
widths.forEach((w) => w.addEventListener("click", () => toWidth(w)));
toWidth(matchMedia("(max-width: 767px)").matches ? widths[0] : widths[1]);

// Without a line nothing leaves the page: what would come instead is the browser's own page of trouble.
for (const type of ["click", "submit"]) {
  document.addEventListener(type, (event) => {
    if (navigator.onLine || (type === "click" && !event.target.closest("a[href]"))) return;
    event.preventDefault();
    const box = document.createElement("div");
    box.className = "notice notice-bad";
    box.role = "alert";
    box.textContent = `${say("not-done")} ${say("not-done.again")}`;
    document.getElementById("notice").replaceChildren(box);
  });
}
