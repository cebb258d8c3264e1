// Keys: to a stage of the work, to the search, steps of a part, undo, the first proposal.
import { typing } from "./typing.js";

const stageOf = (key) => document.querySelector(`[data-stage="${CSS.escape(key)}"]`);
let waitingForStage = false;

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const field = event.target;
  if (field.matches && field.matches("[data-amount]") && (event.key === "+" || event.key === "-") && field.form.elements.step) {
    event.preventDefault();
    const wanted = event.key === "+" ? "1" : "-1";
    field.form.querySelector(`button[name=step][value="${wanted}"]`).click();
    return;
  }
  if (field.matches && field.matches("[data-amount]")) {
    if (event.key === "!" && field.form.elements.lock) { event.preventDefault(); field.form.elements.lock.click(); return; }
    if (event.key === "Escape") { field.blur(); return; }
  }
  if (typing(field)) return;
  if (waitingForStage && stageOf(event.key)) {
    event.preventDefault();
    window.location.assign(stageOf(event.key).href);
  } else if (event.key === "?") {
    document.getElementById("keys")?.showModal();
  } else if (event.key === "/") {
    const search = document.querySelector("[data-search]");
    if (search) { event.preventDefault(); search.focus(); }
  } else if (event.key === "u") {
    document.querySelector("[data-undo]")?.click();
  } else if (event.key === "t") {
    document.querySelector("[data-first-proposal]")?.click();
  }
  waitingForStage = event.key === "g";
});

document.addEventListener("keydown", (event) => {
  if (event.defaultPrevented || typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
  document.querySelector(`[data-key="${event.key}"]`)?.click();
});
