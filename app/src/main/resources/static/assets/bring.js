// A picture of one's own: chosen, dropped or taken with a phone. What is missing is told before anything is sent; where the shape has
// to be cut, which part stays is chosen first.
import { cut, missing, placedCut } from "./fit.js";
import { say } from "./say.js";

const PREVIEW = 360;
let turns = 0;

class Bring extends HTMLElement {
  connectedCallback() {
    if (this.file) return;
    this.asks = JSON.parse(this.dataset.asks);
    const label = document.createElement("label");
    label.className = "btn btn-small";
    label.textContent = say("bring");
    this.file = document.createElement("input");
    this.file.type = "file";
    // Phones turn what their cameras write into one of these.
    this.file.accept = "image/jpeg,image/png,image/webp";
    this.file.setAttribute("aria-label", say("bring.of", this.dataset.name));
    label.append(this.file);
    this.words = document.createElement("p");
    this.words.className = "small quiet mb-0";
    this.words.role = "status";
    this.words.textContent = this.dataset.words ? say("bring.asked", this.dataset.words) : "";
    this.place = document.createElement("div");
    this.replaceChildren(label, this.words, this.place);
    // It is no answer by itself: what is brought becomes one.
    for (const kind of ["input", "change"]) this.file.addEventListener(kind, (event) => event.stopPropagation());
    this.file.addEventListener("change", () => { if (this.file.files[0]) this.look(this.file.files[0]); });
    const shelf = this.shelf;
    for (const where of [this, shelf]) {
      where.addEventListener("dragover", (event) => {
        if (![...event.dataTransfer.items].some((i) => i.kind === "file")) return;
        event.preventDefault();
        this.dataset.over = "";
      });
      where.addEventListener("dragleave", () => { delete this.dataset.over; });
      where.addEventListener("drop", (event) => {
        delete this.dataset.over;
        if (!event.dataTransfer.files[0]) return;
        event.preventDefault();
        this.look(event.dataTransfer.files[0]);
      });
    }
  }

  get shelf() { return this.previousElementSibling?.matches(".pictures") ? this.previousElementSibling : this.closest(".part, form").querySelector(".pictures"); }

  say(text, state = "") {
    this.words.textContent = text;
    this.words.className = `small mb-0 ${state ? `state-${state}` : "quiet"}`;
  }

  async look(file) {
    const turn = this.turn = ++turns;
    this.place.replaceChildren();
    this.say(say("bring.looking", file.name));
    const picture = await createImageBitmap(file).catch(() => null);
    if (turn !== this.turn) return;
    // What cannot be read here is told by the server, which says what it is.
    if (!picture) return this.send(file, 0.5, 0.5);
    const lacks = missing(this.asks, picture.width, picture.height);
    if (lacks) {
      this.file.value = "";
      return this.say(say("bring.lacks", lacks), "breaks");
    }
    const part = cut(this.asks, picture.width, picture.height);
    if (part[0] === picture.width && part[1] === picture.height) return this.send(file, 0.5, 0.5);
    this.choosePart(file, picture, part);
  }

  // Which part stays: a slide moves it along the only way that it can go, and so does a finger on the picture.
  choosePart(file, picture, part) {
    this.say(say("bring.choose"));
    const scale = Math.min(1, PREVIEW / picture.width, PREVIEW / picture.height);
    const canvas = document.createElement("canvas");
    canvas.className = "cutter";
    canvas.width = Math.max(1, Math.round(picture.width * scale));
    canvas.height = Math.max(1, Math.round(picture.height * scale));
    const across = part[0] < picture.width;
    const slide = document.createElement("input");
    slide.type = "range";
    slide.min = 0;
    slide.max = 1000;
    slide.value = 500;
    slide.setAttribute("aria-label", say(across ? "bring.stays-across" : "bring.stays-down"));
    const middle = () => {
      const share = (across ? part[0] / picture.width : part[1] / picture.height) / 2;
      return share + (slide.value / 1000) * (1 - 2 * share);
    };
    const draw = () => {
      const at = across ? [middle(), 0.5] : [0.5, middle()];
      const [left, top] = placedCut(part, picture.width, picture.height, ...at).map((v) => v * scale);
      const [w, h] = part.map((v) => v * scale);
      const c = canvas.getContext("2d");
      c.clearRect(0, 0, canvas.width, canvas.height);
      c.drawImage(picture, 0, 0, canvas.width, canvas.height);
      c.fillStyle = "rgb(28 30 32 / 62%)";
      c.beginPath();
      c.rect(0, 0, canvas.width, canvas.height);
      c.rect(left, top, w, h);
      c.fill("evenodd");
      c.strokeStyle = "#fff";
      c.lineWidth = 2;
      c.strokeRect(left + 1, top + 1, w - 2, h - 2);
    };
    const point = (event) => {
      const box = canvas.getBoundingClientRect();
      const to = across ? (event.clientX - box.left) / box.width : (event.clientY - box.top) / box.height;
      const share = (across ? part[0] / picture.width : part[1] / picture.height) / 2;
      slide.value = Math.round((1000 * (to - share)) / (1 - 2 * share));
      draw();
    };
    canvas.addEventListener("pointerdown", (event) => { canvas.setPointerCapture(event.pointerId); point(event); });
    canvas.addEventListener("pointermove", (event) => { if (canvas.hasPointerCapture(event.pointerId)) point(event); });
    for (const kind of ["input", "change"]) slide.addEventListener(kind, (event) => { event.stopPropagation(); draw(); });
    const tools = document.createElement("p");
    tools.className = "tools mb-0";
    const button = (text, kind, act) => {
      const b = document.createElement("button");
      b.type = "button";
      b.className = kind;
      b.textContent = text;
      b.addEventListener("click", act);
      tools.append(b);
    };
    button(say("bring.use"), "btn btn-small", () => {
      this.place.replaceChildren();
      this.send(file, across ? middle() : 0.5, across ? 0.5 : middle());
    });
    button(say("bring.leave"), "plain", () => {
      this.place.replaceChildren();
      this.file.value = "";
      this.say(say("bring.nothing"));
    });
    this.place.replaceChildren(canvas, slide, tools);
    draw();
    slide.focus({ preventScroll: true });
  }

  send(file, x, y) {
    const form = this.closest("form");
    const body = new FormData();
    const fields = { key: form.elements.key.value, field: this.dataset.field, x, y };
    for (const [name, value] of Object.entries(fields)) body.set(name, value);
    body.set("file", file);
    const request = new XMLHttpRequest();
    const turn = this.turn = ++turns;
    request.open("POST", this.dataset.to);
    request.setRequestHeader("HX-Request", "true");
    for (const [name, value] of Object.entries(JSON.parse(document.body.getAttribute("hx-headers") || "{}"))) request.setRequestHeader(name, value);
    request.upload.addEventListener("progress", ({ loaded, total }) => {
      if (turn === this.turn) this.say(loaded < total ? say("bring.sending.part", file.name, Math.round((100 * loaded) / total)) : say("bring.fitting"));
    });
    const lost = () => {
      if (turn === this.turn) this.say(say("bring.lost"), "breaks");
    };
    request.addEventListener("error", lost);
    request.addEventListener("load", () => {
      if (turn !== this.turn) return;
      this.file.value = "";
      const html = !(request.getResponseHeader("Content-Type") || "").includes("json");
      if (request.status !== 200 || html) {
        const page = new DOMParser().parseFromString(request.responseText, "text/html").body;
        page.querySelectorAll("button").forEach((b) => b.remove());
        const said = page.textContent.replace(/\s+/g, " ").trim();
        return this.say(request.status === 200 ? say("bring.signed-out") : said || say("no-answer.as-should"), "breaks");
      }
      this.use(JSON.parse(request.responseText));
    });
    this.say(say("bring.sending", file.name));
    request.send(body);
  }

  // It stands first on the shelf, and is chosen as if it had been pressed.
  use({ path, name, address, told, mark }) {
    const shelf = this.shelf;
    const known = [...shelf.querySelectorAll("input")].find((i) => i.value === path);
    const radio = known ?? document.createElement("input");
    if (!known) {
      const label = document.createElement("label");
      label.title = name;
      radio.type = "radio";
      radio.name = this.dataset.field;
      radio.value = path;
      const image = document.createElement("img");
      image.className = "thumb";
      image.alt = "";
      image.src = address;
      const words = document.createElement("span");
      words.className = "code";
      words.textContent = name;
      label.append(radio, image, words);
      const none = shelf.querySelector("input[value='']")?.closest("label");
      if (none) none.after(label);
      else shelf.prepend(label);
      shelf.querySelector("p")?.remove();
    }
    radio.checked = true;
    for (const kind of ["input", "change"]) radio.dispatchEvent(new Event(kind, { bubbles: true }));
    radio.focus({ preventScroll: true });
    this.say(told);
    if (!mark) return;
    const link = document.createElement("a");
    link.href = mark;
    link.textContent = say("bring.mark");
    this.words.append(" ", link);
  }
}
customElements.define("calm-bring", Bring);
