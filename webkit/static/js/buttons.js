// Buttons that need no answer from the server: the list of keys, printing, a choice picked beside its field.
document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-keys-open], [data-print], [data-pick], [data-lines], [data-focus], [data-leave-out]");
  if (!target) return;
  if (target.hasAttribute("data-keys-open")) document.getElementById("keys").showModal();
  if (target.hasAttribute("data-print")) window.print();
  if (target.hasAttribute("data-pick")) {
    const select = document.getElementById(target.dataset.pick);
    select.value = target.dataset.value;
    target.closest(".found-list")?.replaceChildren();
    for (const name of ["input", "change"]) select.dispatchEvent(new Event(name, { bubbles: true }));
  }
  if (target.hasAttribute("data-focus")) {
    const field = document.getElementById(target.dataset.focus);
    field.focus();
    field.select();
  }
  if (target.hasAttribute("data-lines")) rewrite(target.dataset.line, target.dataset.lines.split("\n"));
  if (target.hasAttribute("data-leave-out")) leaveOut(target);
});

// A line of the recipe in other words; it is read again at once.
function rewrite(line, instead) {
  const field = document.getElementById("id_text");
  const lines = field.value.split("\n");
  const at = lines.findIndex((one) => one.trim() === line.trim());
  if (at < 0) return;
  lines.splice(at, 1, ...instead);
  field.value = lines.join("\n");
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

// Left out with a reason, which is asked for in place of the button.
function leaveOut(button) {
  const line = button.dataset.leaveOut;
  const field = document.createElement("input");
  field.placeholder = "why, then Enter";
  field.setAttribute("aria-label", `Why it is not counted: ${line}`);
  field.addEventListener("keydown", (event) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    rewrite(line, [`${line} [not counted: ${field.value.replace(/[[\]]/g, "") || "no reason given"}]`]);
  });
  button.replaceWith(field);
  field.focus();
}
