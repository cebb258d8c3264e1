// A recipe is read while it is typed; a field in the reading itself waits until it is left.
document.addEventListener("input", (event) => {
  if (event.target.matches("[data-live]")) htmx.trigger(event.target.form, "typed");
});

document.addEventListener("change", (event) => {
  if (event.target.closest("#reckoned")) htmx.trigger("#recipe", "settled");
});

// A choice that asks the page again.
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
});
