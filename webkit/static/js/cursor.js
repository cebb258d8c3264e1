// Keep the cursor where it was, and what was typed there, when the part of the page around it is drawn anew.
let kept = null;
// Where the page stood: what is drawn anew within it does not move it, but for what is taken of a proposal.
let stood = null;
const moves = (elt) => elt && elt.closest && elt.closest("#balance, #swaps, #cautions");
document.addEventListener("htmx:beforeSwap", (event) => {
  const { target, requestConfig } = event.detail;
  stood = ["work", "reckoned"].includes(target.id) && !moves(requestConfig && requestConfig.elt) ? window.scrollY : null;
});
document.addEventListener("htmx:afterSettle", () => {
  // at the very top nothing can have moved it, and asking where it stands would lay the page out once more
  if (stood && Math.abs(window.scrollY - stood) > 1) window.scrollTo({ top: stood, behavior: "instant" });
  stood = null;
});
document.addEventListener("htmx:beforeSwap", (event) => {
  const active = document.activeElement;
  kept = null;
  if (!active || !event.detail.target.contains(active)) return;
  if (active.id) {
    const dirty = "defaultValue" in active && active.value !== active.defaultValue;
    kept = { selector: `#${active.id}`, value: dirty ? active.value : null, sent: event.detail.requestConfig.parameters[active.name] };
  } else if (active.form) {
    kept = { selector: `form[action="${active.form.getAttribute("action")}"] [name="${active.name}"][value="${active.value}"]`, value: null };
  }
});
document.addEventListener("htmx:afterSettle", () => {
  if (!kept) return;
  const element = document.querySelector(kept.selector);
  if (element && document.activeElement !== element) element.focus({ preventScroll: true });
  // what was typed after the request went out is not in the answer: put it back
  if (element && kept.value !== null && kept.value !== kept.sent) {
    element.value = kept.value;
    // what looks things up looks again
    if (element.matches("[data-add]")) element.dispatchEvent(new Event("input", { bubbles: true }));
  }
  kept = null;
});
