// Takes a colour from a picture of the theme by pointing at it: a button beside a colour's field opens the pictures.
import { say } from "./say.js";
const hex = ([r, g, b]) => "#" + [r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("");

class Taker extends HTMLElement {
  connectedCallback() {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "plain small";
    button.textContent = say("take");
    // Which one it is, of several on a page.
    button.setAttribute("aria-label", say("of", say("take"), this.field?.getAttribute("aria-label") ?? ""));
    button.addEventListener("click", () => this.open());
    this.replaceChildren(button);
  }

  get field() { return this.parentElement.querySelector("[data-any]"); }

  open() {
    const dialog = document.createElement("dialog");
    dialog.className = "taker";
    dialog.setAttribute("aria-label", say("take.title"));
    dialog.innerHTML = `<div class="taker-list" role="group"></div>
      <div class="taker-stage"><canvas tabindex="0" role="img"></canvas><span class="taker-point"></span></div>
      <p class="tools mb-0"><svg class="dot" viewBox="0 0 20 20" aria-hidden="true"><circle cx="10" cy="10" r="9"/></svg>
      <output class="code"></output><button class="btn btn-small" type="button" data-use></button>
      <button class="plain" type="button" data-leave></button>
      <span class="small quiet"></span></p>`;
    const words = { "[data-use]": say("take.it"), "[data-leave]": say("bring.leave"), ".quiet": say("take.about") };
    for (const [where, text] of Object.entries(words)) dialog.querySelector(where).textContent = text;
    dialog.querySelector("[role=group]").setAttribute("aria-label", say("take.pictures"));
    document.body.append(dialog);
    const [list, canvas, point, output] = [".taker-list", "canvas", ".taker-point", "output"].map((s) => dialog.querySelector(s));
    const context = canvas.getContext("2d", { willReadFrequently: true });
    let at = null;
    let color = null;
    const look = (x, y) => {
      at = [Math.max(0, Math.min(canvas.width - 1, Math.floor(x))), Math.max(0, Math.min(canvas.height - 1, Math.floor(y)))];
      const pixel = context.getImageData(at[0], at[1], 1, 1).data;
      color = pixel[3] ? hex(pixel) : null;
      output.textContent = color ?? say("take.nothing");
      dialog.querySelector("circle").setAttribute("fill", color ?? "none");
      const box = canvas.getBoundingClientRect();
      const stage = canvas.parentElement.getBoundingClientRect();
      point.style.left = `${box.left - stage.left + ((at[0] + 0.5) / canvas.width) * box.width}px`;
      point.style.top = `${box.top - stage.top + ((at[1] + 0.5) / canvas.height) * box.height}px`;
    };
    const show = (picture, chosen) => {
      const image = new Image();
      image.onload = () => {
        // As it is shown, upright; more pixels than the dialog has would not be pointed at.
        const scale = Math.min(1, 1600 / Math.max(image.naturalWidth || 300, image.naturalHeight || 150));
        canvas.width = Math.max(1, Math.round((image.naturalWidth || 300) * scale));
        canvas.height = Math.max(1, Math.round((image.naturalHeight || 150) * scale));
        canvas.setAttribute("aria-label", picture.name);
        context.drawImage(image, 0, 0, canvas.width, canvas.height);
        look(canvas.width / 2, canvas.height / 2);
      };
      image.onerror = () => { output.textContent = say("take.cannot", picture.name); };
      image.src = picture.address;
      list.querySelectorAll("button").forEach((b) => b.setAttribute("aria-pressed", String(b === chosen)));
    };
    JSON.parse(this.dataset.pictures).forEach((picture, i) => {
      const button = document.createElement("button");
      button.type = "button";
      button.title = picture.name;
      const small = new Image();
      small.src = picture.address;
      small.alt = picture.name;
      button.append(small);
      button.addEventListener("click", () => show(picture, button));
      list.append(button);
      if (i === 0) show(picture, button);
    });
    const take = () => {
      if (!color) return;
      const field = this.field;
      field.value = color;
      ["input", "change"].forEach((type) => field.dispatchEvent(new Event(type, { bubbles: true })));
      dialog.close();
    };
    const pointed = (e) => {
      const box = canvas.getBoundingClientRect();
      look(((e.clientX - box.left) / box.width) * canvas.width, ((e.clientY - box.top) / box.height) * canvas.height);
    };
    canvas.addEventListener("pointermove", pointed);
    canvas.addEventListener("click", (e) => { pointed(e); take(); });
    canvas.addEventListener("keydown", (e) => {
      const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
      if (step && at) { e.preventDefault(); look(at[0] + step[0] * (e.shiftKey ? 10 : 1), at[1] + step[1] * (e.shiftKey ? 10 : 1)); }
      if (e.key === "Enter") { e.preventDefault(); take(); }
    });
    dialog.querySelector("[data-use]").addEventListener("click", take);
    dialog.querySelector("[data-leave]").addEventListener("click", () => dialog.close());
    dialog.addEventListener("close", () => { dialog.remove(); this.querySelector("button").focus(); });
    dialog.showModal();
    canvas.focus();
  }
}
customElements.define("calm-taker", Taker);
