// A field that holds so much and no more says so beside itself; nothing is cut. What is too long is refused by the server as well.
function words(field) {
  const over = field.value.length - Number(field.dataset.most);
  return over > 0 ? `${over.toLocaleString("en-US")} characters too many: ${Number(field.dataset.most).toLocaleString("en-US")} can be kept here.` : "";
}
document.addEventListener("input", (event) => {
  const field = event.target;
  if (!field.dataset || !field.dataset.most) return;
  const said = words(field);
  field.setCustomValidity(said);
  let place = field.parentElement.querySelector(".too-long");
  if (!said) { if (place) place.remove(); return; }
  if (!place) {
    place = Object.assign(document.createElement("span"), { className: "error too-long" });
    place.setAttribute("role", "alert");
    field.after(place);
  }
  place.textContent = said;
});
