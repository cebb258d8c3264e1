// What a change brings is laid over what stands there: what is the same stays, and so do the cursor
// and where the page stood. What was typed after the request went out is not in the answer, and
// stays.
document.addEventListener("htmx:beforeSwap", (event) => {
  const field = document.activeElement;
  const sent = event.detail.requestConfig?.parameters?.[field?.name];
  const typed = "defaultValue" in (field || {}) && field.value !== field.defaultValue;
  window.Idiomorph.defaults.ignoreActiveValue = typed && field.value !== sent;
});
