// A long list of choices is narrowed by a few letters; Enter ticks the first that is left. What is
// ticked stays in sight.
document.querySelectorAll("[data-narrowed]").forEach((list) => {
  const field = document.createElement("input");
  field.type = "search";
  field.autocomplete = "off";
  field.placeholder = "a few letters; Enter ticks the first";
  field.setAttribute("aria-label", `Find in ${list.dataset.narrowed}`);
  list.before(field);
  const rows = [...list.querySelectorAll("label")].map((label) => [
    label.parentElement === list ? label : label.parentElement,
    label.querySelector("input"),
    label.textContent.toLowerCase(),
  ]);
  const narrow = () => {
    const words = field.value.toLowerCase().split(/\s+/).filter(Boolean);
    for (const [row, box, text] of rows)
      row.hidden = !box.checked && !words.every((word) => text.includes(word));
  };
  field.addEventListener("input", narrow);
  field.addEventListener("keydown", (event) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const first = field.value.trim() && rows.find(([row, box]) => !row.hidden && !box.checked);
    if (!first) return;
    first[1].click();
    field.value = "";
    narrow();
  });
});
