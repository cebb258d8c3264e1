// A recipe is read while it is typed; a field in the reading itself waits until it is left.
document.addEventListener("input", (event) => {
  if (event.target.matches("[data-live]")) htmx.trigger(event.target.form, "typed");
});

document.addEventListener("change", (event) => {
  if (event.target.closest("#reckoned") && !event.target.matches("[data-meant]"))
    htmx.trigger("#recipe", "settled");
});

// What is written is kept by itself once nothing was typed for a moment; a recipe that is new is
// saved first.
let keeping = null;
for (const name of ["typed", "settled"]) document.addEventListener(name, keepSoon);
document.addEventListener("change", (event) => {
  if (event.target.closest("#recipe") && event.target.name !== "why") keepSoon();
});
function keepSoon() {
  clearTimeout(keeping);
  keeping = setTimeout(() => {
    if (document.getElementById("kept-status")) htmx.trigger("#recipe", "keep-typing");
  }, 900);
}

// A choice that asks the page again.
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
});
