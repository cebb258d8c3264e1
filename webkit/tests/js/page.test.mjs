// What a page tells with what it sends, and what keys lead to.
import assert from "node:assert/strict";
import { test } from "node:test";
import { page, type } from "./page.mjs";

test("a change is sent for the version that is shown, a proposal for the one it was made of", async () => {
  const [{ shownVersion }] = await page(
    `<div id="work" data-version="7"><form id="a"></form></div>
     <div class="proposal"><form id="b"></form></div>`,
    "page",
  );
  assert.equal(shownVersion(document.getElementById("a")), "7");
  assert.equal(shownVersion(document.getElementById("b")), null);
});

test("a second click right after the first is the same sending, a later one another", async () => {
  await page("<form></form>", "page");
  const form = document.querySelector("form");
  const clock = performance.now;
  let now = 5000;
  performance.now = () => now;
  const send = () => {
    form.dispatchEvent(new window.Event("submit", { bubbles: true }));
    return form.dataset.formKey;
  };
  const first = send();
  now += 600;
  assert.equal(send(), first);
  now += 800;
  assert.notEqual(send(), first);
  performance.now = clock;
});

const KEYS = `
  <a data-stage="b" href="#"></a><button data-key="s">Swaps</button><button data-undo>Undo</button>
  <input id="field"><form><input id="amount" data-amount><input type="hidden" name="step">
  <button name="step" value="1">+</button><button name="step" value="-1">-</button></form>`;

async function keys(letters = true) {
  await page(KEYS, "keys");
  if (letters) document.body.setAttribute("data-letter-keys", "");
  const pressed = [];
  for (const button of document.querySelectorAll("button")) {
    button.addEventListener("click", (event) => {
      event.preventDefault();
      pressed.push(button.textContent);
    });
  }
  return pressed;
}

test("letters are commands outside of fields, and only where they are wanted", async () => {
  let pressed = await keys();
  type("s", document.body);
  type("u", document.body);
  type("s", document.getElementById("field"));
  assert.deepEqual(pressed, ["Swaps", "Undo"]);
  pressed = await keys(false);
  type("s", document.body);
  assert.deepEqual(pressed, []);
});

test("plus and minus step the amount that has the cursor", async () => {
  const pressed = await keys();
  type("+", document.getElementById("amount"));
  type("-", document.getElementById("amount"));
  assert.deepEqual(pressed, ["+", "-"]);
});
