// A step of the timeline is dragged, or moved by the arrow keys; the server plans the rest around
// it.
const UNIT = "http://www.w3.org/2000/svg";
let drag = null;
let keyed = null;

function panel() {
  return document.querySelector("[data-stove]");
}

function unitsPerPixel(svg) {
  return svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
}

function send(task, start) {
  const work = panel();
  if (!work) return;
  const values = { task, start: String(Math.round(start)), version: work.dataset.version };
  htmx.ajax("POST", work.dataset.stove, { target: "#work", values }).then(() => {
    const moved = document.querySelector(`[data-task="${task}"]`);
    moved?.focus();
  });
}

document.addEventListener("pointerdown", (event) => {
  const bar = event.target.closest?.(".stove-bar[data-task]");
  if (!bar || event.button > 0) return;
  const svg = bar.ownerSVGElement;
  drag = { bar, x: event.clientX, scale: unitsPerPixel(svg), per: Number(svg.dataset.perMinute) };
  bar.classList.add("dragged");
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  drag.by = Math.round(((event.clientX - drag.x) * drag.scale) / drag.per);
  drag.bar.setAttribute("transform", `translate(${drag.by * drag.per} 0)`);
});
document.addEventListener("pointerup", () => {
  if (!drag) return;
  const { bar, by } = drag;
  drag = null;
  bar.classList.remove("dragged");
  if (by) send(bar.dataset.task, Number(bar.dataset.start) + by);
});
document.addEventListener("pointercancel", () => {
  drag?.bar.removeAttribute("transform");
  drag?.bar.classList.remove("dragged");
  drag = null;
});

document.addEventListener("keydown", (event) => {
  const bar = event.target.closest?.(".stove-bar[data-task]");
  if (!bar || bar.namespaceURI !== UNIT) return;
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  const svg = bar.ownerSVGElement;
  const step = event.shiftKey ? 5 : 1;
  if (keyed?.bar !== bar) keyed = { bar, by: 0 };
  keyed.by += by * step;
  bar.setAttribute("transform", `translate(${keyed.by * Number(svg.dataset.perMinute)} 0)`);
  clearTimeout(keyed.timer);
  // several presses are one move
  keyed.timer = setTimeout(() => {
    const one = keyed;
    keyed = null;
    if (one?.by) send(one.bar.dataset.task, Number(one.bar.dataset.start) + one.by);
  }, 500);
});
