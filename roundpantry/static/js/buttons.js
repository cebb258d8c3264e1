// Buttons that need no answer from the server: the list of keys, printing, a choice picked beside its field.
document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-keys-open], [data-print], [data-pick]");
  if (!target) return;
  if (target.hasAttribute("data-keys-open")) document.getElementById("keys").showModal();
  if (target.hasAttribute("data-print")) window.print();
  if (target.hasAttribute("data-pick")) {
    const select = document.getElementById(target.dataset.pick);
    select.value = target.dataset.value;
    for (const name of ["input", "change"]) select.dispatchEvent(new Event(name, { bubbles: true }));
  }
});
