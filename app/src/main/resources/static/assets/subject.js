// The box over what must stay in sight of a picture: drawn, moved and sized by pointer, finger and keys, in hundredths of the picture.
const limit = (v, most) => Math.max(0, Math.min(most, v));

// The form has fields left, top, width and height, a button that keeps them, and perhaps a name that stands at the box.
export function subjectBox(form, image, box) {
  if (!form) return;
  const field = (name) => form.elements.namedItem(name);
  const keep = form.querySelector("[data-keep]");
  const name = box.querySelector("[data-subject-name]");
  function now() {
    const [left, top, width, height] = ["left", "top", "width", "height"].map((n) => parseFloat(field(n).value));
    return [left, top, width, height].every(Number.isFinite) ? { left, top, width, height } : null;
  }
  function draw() {
    const b = now();
    box.hidden = !b;
    if (!b) return;
    Object.entries(b).forEach(([k, v]) => { box.style[k] = `${v}%`; });
    if (name) name.textContent = field("name").value || "the subject";
  }
  function put(b) {
    const width = Math.max(0.5, limit(b.width, 100));
    const height = Math.max(0.5, limit(b.height, 100));
    const set = { width, height, left: limit(b.left, 100 - width), top: limit(b.top, 100 - height) };
    Object.entries(set).forEach(([k, v]) => { field(k).value = Math.round(v * 100) / 100; });
    keep.disabled = false;
    draw();
  }
  draw();
  form.addEventListener("input", () => { keep.disabled = !now(); draw(); });
  const place = (event) => {
    const r = image.getBoundingClientRect();
    return { x: limit(((event.clientX - r.left) / r.width) * 100, 100), y: limit(((event.clientY - r.top) / r.height) * 100, 100) };
  };
  image.draggable = false;
  image.parentElement.addEventListener("pointerdown", (event) => {
    if (event.button !== 0) return;
    event.preventDefault();
    const start = place(event);
    const moved = event.target.closest("[data-subject]") ? now() : null;
    image.parentElement.setPointerCapture(event.pointerId);
    const move = (e) => {
      const p = place(e);
      if (moved) put({ ...moved, left: moved.left + p.x - start.x, top: moved.top + p.y - start.y });
      else if (Math.abs(p.x - start.x) > 0.7 || Math.abs(p.y - start.y) > 0.7) {
        put({ left: Math.min(p.x, start.x), top: Math.min(p.y, start.y), width: Math.abs(p.x - start.x), height: Math.abs(p.y - start.y) });
      }
    };
    const over = new AbortController();
    const end = () => {
      over.abort();
      box.focus({ preventScroll: true });
    };
    image.parentElement.addEventListener("pointermove", move, over);
    image.parentElement.addEventListener("pointerup", end, over);
    image.parentElement.addEventListener("pointercancel", end, over);
  });
  box.addEventListener("keydown", (event) => {
    const [dx, dy] = { ArrowLeft: [-0.5, 0], ArrowRight: [0.5, 0], ArrowUp: [0, -0.5], ArrowDown: [0, 0.5] }[event.key] || [0, 0];
    if (!dx && !dy) return;
    event.preventDefault();
    const b = now();
    put(event.shiftKey ? { ...b, width: b.width + dx, height: b.height + dy } : { ...b, left: b.left + dx, top: b.top + dy });
  });
}
