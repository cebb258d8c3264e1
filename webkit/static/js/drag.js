// Dragging a handle of the round sends the share of the circle its part should have.
let drag = null;
document.addEventListener("pointerdown", (event) => {
  const handle = event.target.closest?.("[data-drag]");
  if (!handle) return;
  event.preventDefault();
  drag = {
    part: handle.dataset.drag,
    url: handle.dataset.url,
    start: Number(handle.dataset.start),
    busy: false,
    last: null,
    first: true,
  };
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  const round = document.querySelector("[data-round]");
  const box = round.getBoundingClientRect();
  const x = event.clientX - box.left - box.width / 2;
  const y = box.height / 2 - (event.clientY - box.top);
  let angle = Math.atan2(x, y) - drag.start;
  if (angle < 0) angle += 2 * Math.PI;
  drag.last = angle / (2 * Math.PI);
  sendDrag();
});
document.addEventListener("pointerup", () => {
  if (drag) {
    drag.done = true;
    sendDrag();
  }
});

function sendDrag() {
  if (!drag || drag.busy || drag.last === null) {
    if (drag?.done && !drag.busy) drag = null;
    return;
  }
  const work = document.getElementById("work").dataset;
  const values = { share: drag.last.toFixed(4), version: work.version };
  // one drag is one step for undo: only its first change is remembered
  if (!drag.first) values.dragging = "1";
  drag.first = false;
  drag.busy = true;
  drag.last = null;
  const current = drag;
  htmx.ajax("POST", drag.url, { target: "#work", values }).finally(() => {
    current.busy = false;
    const handle = document.querySelector(`[data-drag="${current.part}"]`);
    if (handle) current.start = Number(handle.dataset.start);
    if (current.last !== null) sendDrag();
    else if (current.done) drag = null;
  });
}
