// What an owner answers is kept, whatever is pressed next. Answers are sent one after the other; an action waits until all
// are kept, and leaving the page sends along what is still on its way. Only what cannot be kept stops anybody. Until the server
// has said that an answer is kept, the window remembers it: a page that is loaded again, or sooner than the answer arrives, shows
// it and sends it once more. Each answer says what it replaces, so that two windows do not write over each other without a sign.
const headers = () => ({ ...JSON.parse(document.body.getAttribute("hx-headers") || "{}"), "HX-Request": "true" });
const idOf = (form) => `${form.elements.key.value}|${form.elements.band?.value ?? ""}`;

// While a button is pressed nothing may be put in its stead: the click would be lost between the old one and the new.
let pressed = false;
let released = [];
const release = () => {
  pressed = false;
  released.splice(0).forEach((call) => call());
};
addEventListener("pointerdown", () => { pressed = true; }, true);
// The click comes right after the pointer is up, in the same turn of the event loop, and has to find the old button still.
addEventListener("pointerup", () => setTimeout(release), true);
addEventListener("pointercancel", release, true);
addEventListener("blur", release);
const notPressed = () => (pressed ? new Promise((call) => { released.push(call); }) : Promise.resolve());

// Names this page, as it was loaded now.
const PAGE = [...crypto.getRandomValues(new Uint8Array(16))].map((n) => (n % 36).toString(36)).join("");
const RETRY_MS = [2000, 4000, 8000, 15000, 30000];

export class Keeping {
  // root: what holds the forms marked data-answer; show(answer) puts the server's words into the page.
  constructor(root, { show, onNote = () => {}, onKept = () => {} }) {
    this.memory = `not kept yet: ${location.pathname}`;
    this.turns = 0;
    this.tries = 0;
    // How far our clock is ahead of the server's, at most: the least that any answer has shown, since each takes its time to come.
    this.ahead = Infinity;
    this.heard(root.dataset.now, performance.timeOrigin + (performance.getEntriesByType("navigation")[0]?.responseStart ?? 0));
    this.root = root;
    this.show = show;
    this.onNote = onNote;
    this.onKept = onKept;
    this.waiting = new Map();
    this.failed = new Map();
    this.sent = null;
    this.kept = new Map();
    this.turn = null;
    this.through = null;
    root.addEventListener("input", (event) => this.note(event.target.closest("[data-answer]")));
    root.addEventListener("change", (event) => {
      const form = event.target.closest("[data-answer]");
      if (!form) return;
      this.note(form);
      this.flush();
    });
    root.addEventListener("submit", (event) => {
      if (!event.target.matches("[data-answer]")) return;
      event.preventDefault();
      this.flush();
    });
    document.addEventListener("click", (event) => this.hold(event), true);
    document.addEventListener("visibilitychange", () => { if (document.hidden) this.flush(); });
    addEventListener("pagehide", () => this.sendAlong());
    // Nothing stays for the next person.
    document.addEventListener("submit", (event) => {
      if (!event.target.getAttribute("action")?.endsWith("/sign-out")) return;
      this.leaves = true;
      sessionStorage.removeItem(this.memory);
    });
    addEventListener("offline", () => this.show({ lost: true, offline: true }));
    addEventListener("online", async () => { if (await this.flush()) this.show({ back: true }); });
    addEventListener("beforeunload", (event) => { if (this.untold().length || (this.busy && this.tries > 0)) event.preventDefault(); });
  }

  get busy() {
    return this.waiting.size > 0 || this.turn !== null;
  }

  note(form) {
    if (!form) return;
    const id = idOf(form);
    this.failed.delete(id);
    this.waiting.set(id, {
      address: form.getAttribute("action"),
      body: new URLSearchParams(new FormData(form)),
      page: PAGE,
      turn: ++this.turns,
      was: form.dataset.was ?? "",
      typed: Math.round(Date.now() - (Number.isFinite(this.ahead) ? this.ahead : 0)),
    });
    this.remember();
    this.onNote(form);
  }

  heard(now, at = Date.now()) {
    if (Number(now) > 0) this.ahead = Math.min(this.ahead, at - Number(now));
  }

  // All that the server has not said to be kept, the one on its way first.
  unkept() {
    const all = new Map(this.sent ? [[this.sent.id, this.sent.answer]] : []);
    this.waiting.forEach((answer, id) => all.set(id, answer));
    return all;
  }

  // What is kept is remembered as well, with the time: a page that is on its way may have been written before.
  remember() {
    if (this.leaves) return;
    const all = [...new Map([...this.kept, ...this.unkept()])].map(([id, { body, ...answer }]) => [id, { ...answer, body: body.toString() }]);
    try {
      if (all.length) sessionStorage.setItem(this.memory, JSON.stringify(all));
      else sessionStorage.removeItem(this.memory);
    } catch {
      // A browser that remembers nothing still sends everything.
    }
  }

  // What this window wrote before the page was loaded, and is not known to be kept, is in the page again. The answer
  // names the forms.
  recall() {
    let all = [];
    try {
      all = JSON.parse(sessionStorage.getItem(this.memory) ?? "[]");
    } catch {
      return [];
    }
    for (const [id, { keptAt, ...answer }] of all) {
      const older = keptAt && keptAt <= Number(this.root.dataset.now);
      if (!older && !this.waiting.has(id)) this.waiting.set(id, { ...answer, body: new URLSearchParams(answer.body) });
    }
    this.remember();
    const recalled = [...this.waiting.keys()];
    if (!recalled.length) return recalled;
    this.restore();
    this.onNote();
    this.flush();
    return recalled;
  }

  body({ body, page, turn, was, typed }) {
    const sent = new URLSearchParams(body);
    Object.entries({ page, turn, was, typed }).forEach(([name, value]) => sent.set(name, value));
    return sent;
  }

  form(id) {
    return [...this.root.querySelectorAll("[data-answer]")].find((form) => idOf(form) === id);
  }

  // The line is gone: it is tried again, each time a little later, for as long as the page is there.
  again() {
    clearTimeout(this.next);
    this.next = setTimeout(async () => { if (await this.flush()) this.show({ back: true }); }, RETRY_MS[Math.min(this.tries++, RETRY_MS.length - 1)]);
  }

  // Sends what is waiting; true once all of it is kept.
  flush() {
    return this.turn ??= this.drain().finally(() => { this.turn = null; });
  }

  async drain() {
    while (this.waiting.size) {
      const [id, answer] = this.waiting.entries().next().value;
      this.waiting.delete(id);
      this.sent = { id, answer };
      const response = await fetch(answer.address, { method: "POST", body: this.body(answer), headers: headers() }).catch(() => null);
      const text = response ? await response.text().catch(() => "") : "";
      await notPressed();
      this.sent = null;
      if (!response || response.redirected) {
        // Nothing came back, or the sign-in page did: it is kept here until it can be sent.
        if (!this.waiting.has(id)) this.waiting.set(id, answer);
        this.failed.set(id, { told: false });
        this.show({ lost: true, signedOut: response?.redirected ?? false, offline: !response && !navigator.onLine });
        if (!response) this.again();
        return false;
      }
      this.tries = 0;
      this.heard(response.headers.get("X-Now"));
      if (response.ok) this.kept.set(id, { ...answer, keptAt: Number(response.headers.get("X-Now")) });
      else this.kept.delete(id);
      this.remember();
      // What comes next from the same form replaces what is kept now.
      const form = this.form(id);
      if (form && response.headers.has("X-Was")) form.dataset.was = response.headers.get("X-Was");
      if (response.ok) this.failed.delete(id);
      else this.failed.set(id, { told: false });
      this.show({ ok: response.ok, text, retarget: response.headers.get("HX-Retarget") });
      if (response.ok) this.onKept(id);
    }
    return this.failed.size === 0;
  }

  untold() {
    return [...this.failed.values()].filter((f) => !f.told);
  }

  // An action waits for what is being kept. What was refused stops it once, with the reason; then it is the person's choice.
  async hold(event) {
    const target = event.target.closest("a[href], button[hx-post], button[hx-get], button[type=submit]");
    if (!target || target.closest("[data-answer]") || target === this.through || event.ctrlKey || event.metaKey || event.shiftKey) return;
    if (!this.busy && !this.untold().length) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    await this.flush();
    const stopped = this.untold();
    stopped.forEach((f) => { f.told = true; });
    if (stopped.length) return;
    // What was pressed may have been put in anew meanwhile.
    const again = target.isConnected ? target : document.querySelector(this.name(target));
    if (!again) return;
    this.through = again;
    again.disabled = false;
    again.click();
    this.through = null;
  }

  name(target) {
    // The state that an address carries is another one by then.
    const by = (element, attribute) => `${element.localName}[${attribute}^="${CSS.escape(element.getAttribute(attribute).replace(/\?.*/, ""))}"]`;
    const asks = ["hx-post", "hx-get"].find((name) => target.hasAttribute(name));
    return asks ? by(target, asks) : target.matches("a") ? by(target, "href") : `${by(target.form, "action")} button[type=submit]`;
  }

  // The page goes: what is waiting or on its way is handed to the browser, which sends it although the page is gone.
  sendAlong() {
    this.remember();
    this.unkept().forEach((answer) =>
      fetch(answer.address, { method: "POST", body: this.body(answer), headers: headers(), keepalive: true }).catch(() => {}));
    this.waiting.clear();
  }

  // After the server has sent the questions anew: what it has not heard yet is written into them again.
  restore() {
    for (const form of this.root.querySelectorAll("[data-answer]")) {
      const answer = this.waiting.get(idOf(form));
      if (answer) fill(form, answer.body);
    }
  }
}

// Writes entries into the fields of a form that have their names.
export function fill(form, entries) {
  for (const field of form.elements) {
    if (!field.name || field.type === "hidden" || field.type === "file" || field.type === "password") continue;
    const values = entries.getAll(field.name);
    if (field.type === "radio" || field.type === "checkbox") field.checked = values.includes(field.value);
    else if (field.localName === "select" && field.multiple) for (const o of field.options) o.selected = values.includes(o.value);
    else if (values.length) field.value = values[0];
  }
}
