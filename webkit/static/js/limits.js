// A field that holds so much and no more says so beside itself; nothing is cut. What is too long
// is refused by the server as well.
function words(field) {
  const most = Number(field.dataset.most);
  const over = field.value.length - most;
  const [many, held] = [over, most].map((count) => count.toLocaleString("en-US"));
  return over > 0 ? `${many} characters too many: ${held} can be kept here.` : "";
}
document.addEventListener("input", (event) => {
  const field = event.target;
  if (!field.dataset?.most) return;
  const said = words(field);
  field.setCustomValidity(said);
  let place = field.parentElement.querySelector(".too-long");
  if (!said) {
    if (place) place.remove();
    return;
  }
  if (!place) {
    place = Object.assign(document.createElement("span"), { className: "error too-long" });
    place.setAttribute("role", "alert");
    field.after(place);
  }
  place.textContent = said;
});
