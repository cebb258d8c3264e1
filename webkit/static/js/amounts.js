// An amount is set when it is left or Enter is pressed, as without JavaScript by its button.
// It is sent once: Enter leaves nothing to do for the leaving.
function setAmount(field) {
  field.dataset.sent = field.value;
  field.form.requestSubmit(field.form.querySelector("button:not([name])"));
}
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-amount]") && event.target.dataset.sent !== event.target.value)
    setAmount(event.target);
});
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches || !event.target.matches("[data-amount]"))
    return;
  event.preventDefault();
  setAmount(event.target);
});
