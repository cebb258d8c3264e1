// A dish of the week is dragged to another day, or carried there with Shift and the arrows.
let carried = null;
const dayOf = (element) => element.closest?.(".week-day[data-day]");

function send(dish, day) {
  const work = document.getElementById("work");
  htmx.ajax("POST", dish.dataset.move, {
    source: dish,
    target: "#work",
    values: { to: day, version: work.dataset.version },
  });
}

document.addEventListener("dragstart", (event) => {
  const dish = event.target.closest?.("[data-move]");
  if (!dish) return;
  carried = dish;
  event.dataTransfer.effectAllowed = "move";
  event.dataTransfer.setData("text/plain", dish.textContent.trim());
  dish.classList.add("dragged");
});
document.addEventListener("dragover", (event) => {
  if (!carried) return;
  const day = dayOf(event.target);
  for (const other of document.querySelectorAll(".over-me"))
    if (other !== day) other.classList.remove("over-me");
  if (!day) return;
  event.preventDefault();
  day.classList.add("over-me");
});
document.addEventListener("drop", (event) => {
  const day = carried && dayOf(event.target);
  if (!day) return;
  event.preventDefault();
  if (day !== dayOf(carried)) send(carried, day.dataset.day);
});
document.addEventListener("dragend", () => {
  for (const other of document.querySelectorAll(".over-me, .dragged"))
    other.classList.remove("over-me", "dragged");
  carried = null;
});

document.addEventListener("keydown", (event) => {
  const dish = event.target.closest?.("[data-move]");
  if (!dish || !event.shiftKey || (event.key !== "ArrowLeft" && event.key !== "ArrowRight")) return;
  event.preventDefault();
  const days = [...document.querySelectorAll(".week-day[data-day]")];
  const to = days[days.indexOf(dayOf(dish)) + (event.key === "ArrowRight" ? 1 : -1)];
  if (to) send(dish, to.dataset.day);
});

// A place that was opened has the cursor, and gives it back when it is closed.
let openedFrom = null;
document.addEventListener("htmx:beforeRequest", (event) => {
  if (event.detail.elt.dataset?.place) openedFrom = event.detail.elt.id;
});
document.addEventListener("htmx:afterSettle", (event) => {
  const slot = document.querySelector("#slot.panel");
  if (slot && event.detail.elt.id === "slot") slot.focus({ preventScroll: true });
});
function close(event) {
  event.preventDefault();
  const slot = document.getElementById("slot");
  slot.className = "";
  slot.replaceChildren();
  document.getElementById(openedFrom)?.focus({ preventScroll: true });
}
document.addEventListener("click", (event) => {
  if (event.target.closest?.("[data-slot-close]")) close(event);
});
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && event.target.closest && event.target.closest("#slot.panel"))
    close(event);
});
