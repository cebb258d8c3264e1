// An amount is set when it is left or Enter is pressed, as without JavaScript by its button.
// It is sent once: Enter leaves nothing to do for the leaving, and what the page shows is set.
function setAmount(field) {
  field.dataset.sent = field.value;
  field.form.requestSubmit(field.form.querySelector("button:not([name])"));
}
document.addEventListener("change", (event) => {
  const field = event.target;
  if (!field.matches("[data-amount]") || field.value === field.defaultValue) return;
  if (field.dataset.sent !== field.value) setAmount(field);
});
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches?.("[data-amount]")) return;
  event.preventDefault();
  setAmount(event.target);
});
