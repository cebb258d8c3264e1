// Buttons that need no answer from the server: the list of keys, printing, a choice picked beside
// its field.
import { leaveOut, rewrite } from "./recipe-lines.js";

document.addEventListener("click", (event) => {
  const target = event.target.closest(
    "[data-keys-open], [data-print], [data-pick], [data-lines], [data-focus], [data-leave-out]",
  );
  if (!target) return;
  if (target.hasAttribute("data-keys-open")) document.getElementById("keys").showModal();
  if (target.hasAttribute("data-print")) window.print();
  if (target.hasAttribute("data-pick")) {
    const select = document.getElementById(target.dataset.pick);
    select.value = target.dataset.value;
    target.closest(".found-list")?.replaceChildren();
    for (const name of ["input", "change"])
      select.dispatchEvent(new Event(name, { bubbles: true }));
  }
  if (target.hasAttribute("data-focus")) {
    const field = document.getElementById(target.dataset.focus);
    field.focus();
    field.select();
  }
  if (target.hasAttribute("data-lines"))
    rewrite(target.dataset.line, target.dataset.lines.split("\n"));
  if (target.hasAttribute("data-leave-out")) leaveOut(target);
});
