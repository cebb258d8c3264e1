// The finder and the derivation of a number open over the page, and give the keyboard back when
// they close.
const finder = document.getElementById("finder");
document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-finder]") || !finder || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  finder.showModal();
  finder.querySelector("input").select();
});
finder?.addEventListener("click", (event) => {
  if (event.target === finder) finder.close();
});
document.addEventListener("htmx:afterSwap", (event) => {
  if (event.detail.target.id === "why") document.getElementById("why-dialog").showModal();
});
