// Lines of a recipe changed by a button beside what was read of them.
// A line of the recipe in other words; it is read again at once.
export function rewrite(line, instead) {
  const field = document.getElementById("id_text");
  const lines = field.value.split("\n");
  const at = lines.findIndex((one) => one.trim() === line.trim());
  if (at < 0) return;
  lines.splice(at, 1, ...instead);
  field.value = lines.join("\n");
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

// Left out with a reason, which is asked for in place of the button.
export function leaveOut(button) {
  const line = button.dataset.leaveOut;
  const field = document.createElement("input");
  field.placeholder = "why, then Enter";
  field.setAttribute("aria-label", `Why it is not counted: ${line}`);
  field.addEventListener("keydown", (event) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    rewrite(line, [
      `${line} [not counted: ${field.value.replace(/[[\]]/g, "") || "no reason given"}]`,
    ]);
  });
  button.replaceWith(field);
  field.focus();
}
