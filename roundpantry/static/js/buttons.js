// Buttons that need no answer from the server: the list of keys, printing, a choice picked beside its field.
document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-keys-open], [data-print], [data-pick], [data-lines]");
  if (!target) return;
  if (target.hasAttribute("data-keys-open")) document.getElementById("keys").showModal();
  if (target.hasAttribute("data-print")) window.print();
  if (target.hasAttribute("data-pick")) {
    const select = document.getElementById(target.dataset.pick);
    select.value = target.dataset.value;
    for (const name of ["input", "change"]) select.dispatchEvent(new Event(name, { bubbles: true }));
  }
  if (target.hasAttribute("data-lines")) {
    const field = document.getElementById("id_text");
    const lines = field.value.split("\n");
    const at = lines.findIndex((line) => line.trim() === target.dataset.line.trim());
    if (at < 0) return;
    lines.splice(at, 1, ...target.dataset.lines.split("\n"));
    field.value = lines.join("\n");
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }
});
