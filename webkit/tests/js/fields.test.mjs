// Fields that find, set and say: what the keyboard does in them.
import assert from "node:assert/strict";
import { test } from "node:test";
import { page, type } from "./page.mjs";

const FINDING = `
  <form><input id="q" data-add="found" value="mil"></form>
  <div id="found" class="found-list">
    <form><button role="option" name="food" value="millet">Millet</button>
    <button role="option" name="food" value="milk">Milk</button></form>
  </div>`;

async function finding() {
  await page(FINDING, "adding");
  const field = document.getElementById("q");
  const pressed = [];
  for (const option of document.querySelectorAll("[role=option]")) {
    option.addEventListener("click", (event) => {
      event.preventDefault();
      pressed.push(option.value);
    });
  }
  return [field, pressed];
}

test("arrows choose and stop at the ends, Enter takes what is chosen", async () => {
  const [field, pressed] = await finding();
  field.dataset.found = "mil";
  for (const key of ["ArrowDown", "ArrowDown", "ArrowDown"]) type(key, field);
  assert.equal(document.querySelector("[aria-selected=true]").value, "milk");
  assert.equal(field.getAttribute("aria-activedescendant"), "q-option-1");
  type("Enter", field);
  for (const key of ["ArrowUp", "ArrowUp", "ArrowUp"]) type(key, field);
  type("Enter", field);
  assert.deepEqual(pressed, ["milk", "millet"]);
});

test("Enter before the list is of these words waits for it", async () => {
  const [field, pressed] = await finding();
  field.dataset.found = "mi";
  type("Enter", field);
  assert.deepEqual(pressed, []);
  const found = new window.CustomEvent("htmx:afterSettle", {
    detail: { requestConfig: { elt: field, parameters: { q: "mil" } } },
  });
  document.dispatchEvent(found);
  assert.deepEqual(pressed, ["millet"]);
});

test("Escape empties the field and its list", async () => {
  const [field] = await finding();
  type("Escape", field);
  assert.equal(field.value, "");
  assert.equal(document.getElementById("found").childElementCount, 0);
});

test("an amount is sent once, by Enter or by leaving it", async () => {
  await page('<form><input data-amount value="60 g"><button>Set</button></form>', "amounts");
  const field = document.querySelector("input");
  let sent = 0;
  field.form.requestSubmit = () => {
    sent += 1;
  };
  field.value = "80 g";
  type("Enter", field);
  field.dispatchEvent(new window.Event("change", { bubbles: true }));
  assert.equal(sent, 1);
  field.value = "90 g";
  field.dispatchEvent(new window.Event("change", { bubbles: true }));
  assert.equal(sent, 2);
  // drawn anew meanwhile: what stands there is what is set
  field.setAttribute("value", "90 g");
  delete field.dataset.sent;
  field.dispatchEvent(new window.Event("change", { bubbles: true }));
  assert.equal(sent, 2);
});

test("a line of a recipe is put in other words, and the others stay", async () => {
  const [lines] = await page("<textarea id='id_text'></textarea>", "recipe-lines");
  const field = document.getElementById("id_text");
  field.value = "1 cup kale\n 2 leeks \nsalt";
  let typed = 0;
  field.addEventListener("input", () => {
    typed += 1;
  });
  lines.rewrite("2 leeks", ["1 leek", "1 onion"]);
  assert.equal(field.value, "1 cup kale\n1 leek\n1 onion\nsalt");
  lines.rewrite("not there", ["x"]);
  assert.equal(typed, 1);
});

test("too many characters are said, and as many as there may be are not", async () => {
  await page('<div class="field"><input data-most="5" id="name"></div>', "limits");
  const field = document.getElementById("name");
  for (const [value, said] of [
    ["kale!", ""],
    ["kale!!", "1 characters too many: 5 can be kept here."],
  ]) {
    field.value = value;
    field.dispatchEvent(new window.Event("input", { bubbles: true }));
    assert.equal(document.body.textContent.includes("too many"), said !== "", value);
    if (said) assert.ok(document.body.textContent.includes(said));
  }
});
