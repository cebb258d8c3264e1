// The cook view: timers that run on while other steps are read, lines ticked off, arrow keys from
// step to step.
const ticks = document.querySelector("[data-ticks]");
if (ticks) {
  const name = ticks.dataset.ticks;
  const boxes = [...ticks.querySelectorAll("input")];
  const read = () => JSON.parse(sessionStorage.getItem(name) || "[]");
  for (const box of boxes) box.checked = read().includes(box.value);
  const write = () =>
    sessionStorage.setItem(
      name,
      JSON.stringify(boxes.filter((box) => box.checked).map((box) => box.value)),
    );
  ticks.addEventListener("change", write);
  document.querySelector("[data-clear-ticks]").addEventListener("click", () => {
    for (const box of boxes) box.checked = false;
    write();
  });
}

for (const timer of document.querySelectorAll("[data-timer]")) {
  const name = `timer ${timer.dataset.name}`;
  const shown = timer.querySelector("strong");
  const draw = () => {
    const end = Number(sessionStorage.getItem(name));
    if (!end) return;
    const left = Math.round((end - Date.now()) / 1000);
    shown.textContent =
      left > 0 ? `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}` : "Time is up";
    if (left <= 0) shown.setAttribute("aria-live", "assertive");
  };
  timer.querySelector("button").addEventListener("click", () => {
    sessionStorage.setItem(
      name,
      String(Date.now() + Number(timer.dataset.timer.replace(",", "")) * 60000),
    );
    shown.setAttribute("aria-live", "off");
    draw();
  });
  draw();
  setInterval(draw, 1000);
}
