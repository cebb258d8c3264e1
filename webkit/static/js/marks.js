// What a change changed is marked for a moment, and said: each place that carries a number has a
// name of its own.
let before = null;
const shown = () =>
  new Map(
    [...document.querySelectorAll("[data-mark]")].map((place) => [
      place.dataset.mark,
      place.textContent.replace(/\s+/g, " ").trim(),
    ]),
  );

document.addEventListener("htmx:beforeSwap", (event) => {
  before =
    event.detail.target.id === "work" || event.detail.target.id === "reckoned" ? shown() : null;
});
document.addEventListener("htmx:afterSettle", () => {
  if (!before) return;
  const said = [];
  for (const place of document.querySelectorAll("[data-mark]")) {
    const now = place.textContent.replace(/\s+/g, " ").trim();
    if (before.get(place.dataset.mark) === now) continue;
    place.classList.add("just-changed");
    setTimeout(() => place.classList.remove("just-changed"), 1600);
    if (place.dataset.mark.startsWith("strip-")) said.push(now);
  }
  if (said.length) document.getElementById("said").textContent = said.slice(0, 3).join("; ");
  before = null;
});

// What stands below the first screen follows a moment later.
document.addEventListener("htmx:afterSettle", (event) => {
  if (event.detail.target.id === "work") htmx.trigger(document.body, "work-changed");
});

// After a proposal or a swap was taken the eye is brought to what came of it.
let taken = false;
document.addEventListener("htmx:configRequest", (event) => {
  const form = event.detail.elt;
  taken = event.detail.verb === "post" && !!form.closest?.("#balance, #swaps, #cautions");
});
document.addEventListener("htmx:afterSettle", (event) => {
  if (!taken || event.detail.target.id !== "work") return;
  taken = false;
  window.scrollTo({ top: 0 });
  document.querySelector("#work .parts, #work .meals")?.classList.add("just-changed");
  setTimeout(
    () => document.querySelector("#work .parts, #work .meals")?.classList.remove("just-changed"),
    1600,
  );
});
