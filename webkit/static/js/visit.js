// A first visit that was written on elsewhere: one's own in its place, for the version that stands
// there now.
document.addEventListener("click", (event) => {
  const mine = event.target.closest("[data-visit-mine]");
  if (!mine) return;
  document.getElementById("visit-version").value = mine.dataset.visitMine;
  htmx.trigger(document.querySelector("[data-keeps]"), "again");
});
