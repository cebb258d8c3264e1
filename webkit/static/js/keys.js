// Keys: to a stage of the work, to the finder, to what is added, steps of a part, undo. None takes
// a proposal.
import { typing } from "./typing.js";

const letters = () => document.body.hasAttribute("data-letter-keys");
const stageOf = (key) => document.querySelector(`[data-stage="${CSS.escape(key)}"]`);
let waitingForStage = false;

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const field = event.target;
  if (field.matches?.("[data-amount]")) {
    if ((event.key === "+" || event.key === "-") && field.form.elements.step) {
      event.preventDefault();
      const wanted = event.key === "+" ? "1" : "-1";
      field.form.querySelector(`button[name=step][value="${wanted}"]`).click();
      return;
    }
    if (event.key === "!" && field.form.elements.lock) {
      event.preventDefault();
      field.form.elements.lock.click();
      return;
    }
    if (event.key === "Escape") {
      field.blur();
      return;
    }
  }
  if (typing(field) || (event.key.length === 1 && !letters())) return;
  if (waitingForStage && stageOf(event.key)) {
    event.preventDefault();
    window.location.assign(stageOf(event.key).href);
  } else if (event.key === "?") {
    document.getElementById("keys")?.showModal();
  } else if (event.key === "/") {
    event.preventDefault();
    document.querySelector("[data-finder]")?.click();
  } else if (event.key === "a") {
    const search = document.querySelector("[data-search]");
    if (search) {
      event.preventDefault();
      search.focus();
    }
  } else if (event.key === "u") {
    document.querySelector("[data-undo]")?.click();
  } else {
    document.querySelector(`[data-key="${CSS.escape(event.key)}"]`)?.click();
  }
  waitingForStage = event.key === "g";
});
