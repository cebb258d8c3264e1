// Answers that are laid over what stands there.
import assert from "node:assert/strict";
import { test } from "node:test";
import { page } from "./page.mjs";

async function swapping(target, parameters = {}) {
  window.Idiomorph = { defaults: {} };
  const detail = { target, shouldSwap: true, requestConfig: { parameters } };
  document.dispatchEvent(new window.CustomEvent("htmx:beforeSwap", { detail }));
  return detail;
}

test("what was typed after the request went out stays, what was sent does not", async () => {
  await page('<input id="amount" name="amount" value="60 g"><div id="work"></div>', "morph");
  const field = document.getElementById("amount");
  const work = document.getElementById("work");
  field.focus();
  for (const [typed, sent, stays] of [
    ["60 g", "60 g", false],
    ["1 cup", "1 cup", false],
    ["1 cup", "60 g", true],
  ]) {
    field.value = typed;
    await swapping(work, { amount: sent });
    assert.equal(window.Idiomorph.defaults.ignoreActiveValue, stays, typed);
  }
});
