// A field that finds what is typed: arrows choose, Enter takes, Escape empties; it keeps the
// keyboard and empties itself once something is added.
const listOf = (field) => document.getElementById(field.dataset.add);
const optionsOf = (field) => [...(listOf(field)?.querySelectorAll("[role=option]") || [])];

function choose(field, at) {
  const options = optionsOf(field);
  options.forEach((option, place) => {
    option.setAttribute("aria-selected", String(place === at));
  });
  if (options[at]) {
    options[at].id = options[at].id || `${field.id}-option-${at}`;
    field.setAttribute("aria-activedescendant", options[at].id);
    options[at].scrollIntoView({ block: "nearest" });
  } else field.removeAttribute("aria-activedescendant");
}

function empty(field) {
  field.value = "";
  listOf(field)?.replaceChildren();
  field.setAttribute("aria-expanded", "false");
}

document.addEventListener("keydown", (event) => {
  const field = event.target;
  if (!field.matches?.("[data-add]")) return;
  const options = optionsOf(field);
  const at = options.findIndex((option) => option.getAttribute("aria-selected") === "true");
  if (event.key === "ArrowDown" || event.key === "ArrowUp") {
    event.preventDefault();
    choose(
      field,
      event.key === "ArrowDown" ? Math.min(at + 1, options.length - 1) : Math.max(at - 1, 0),
    );
  } else if (event.key === "Enter") {
    event.preventDefault();
    // what was typed is still being looked for: it is taken when it stands there
    if (field.dataset.found !== field.value) {
      field.dataset.taking = "1";
      return;
    }
    (options[at] || options[0])?.click();
  } else if (event.key === "Escape") {
    if (field.value) {
      event.preventDefault();
      empty(field);
    }
  }
});

// What is chosen is written into its form: the cursor goes back to the field before the form is
// sent.
document.addEventListener(
  "click",
  (event) => {
    const option = event.target.closest("button[role=option][name]");
    if (!option?.form) return;
    option.form.querySelectorAll("[data-chosen]").forEach((one) => {
      one.remove();
    });
    const chosen = document.createElement("input");
    Object.assign(chosen, { type: "hidden", name: option.name, value: option.value });
    chosen.dataset.chosen = "";
    option.form.append(chosen);
  },
  true,
);

// Which words the list is for that stands there now.
document.addEventListener("htmx:afterSettle", (event) => {
  const config = event.detail.requestConfig;
  const asked = config?.elt?.matches?.("[data-add]")
    ? document.getElementById(config.elt.id)
    : null;
  if (!asked) {
    clearTimeout(again);
    again = setTimeout(lookAgain);
    return;
  }
  asked.dataset.found = config.parameters.q || "";
  asked.setAttribute("aria-expanded", String(optionsOf(asked).length > 0));
  choose(asked, optionsOf(asked).length ? 0 : -1);
  if (asked.dataset.taking && asked.dataset.found === asked.value) {
    delete asked.dataset.taking;
    optionsOf(asked)[0]?.click();
  }
});

let again = 0;
// What was found is gone where something else was drawn over it, added a moment before; what was
// typed meanwhile is looked for again.
function lookAgain() {
  const field = document.activeElement;
  if (!field?.matches?.("[data-add]:not([data-meant])") || !field.value) return;
  if (listOf(field)?.childElementCount) return;
  // asked outright: to the field nothing has changed; what is typed next takes its place
  const asked = { source: field, target: listOf(field) };
  htmx.ajax("GET", field.getAttribute("hx-get"), asked)?.catch(() => {});
}

// Taken: the field is empty again and has the cursor, whoever took it.
document.addEventListener(
  "submit",
  (event) => {
    const list = event.target.closest(".found-list");
    const field = list && document.querySelector(`[data-add="${list.id}"]`);
    if (!field) return;
    // the list itself stays until the answer draws it anew: it holds the form that is being sent
    field.value = "";
    field.focus({ preventScroll: true });
  },
  true,
);

// A click elsewhere closes the list.
document.addEventListener("pointerdown", (event) => {
  for (const field of document.querySelectorAll("[data-add]")) {
    const list = listOf(field);
    if (
      list?.childElementCount &&
      !list.contains(event.target) &&
      event.target !== field &&
      !event.target.closest("[data-role]")
    )
      list.replaceChildren();
  }
  for (const open of document.querySelectorAll("details.reading[open]"))
    if (!open.contains(event.target)) open.open = false;
});

// Another role: what was found is added as that; the keyboard goes back to the words.
document.addEventListener("change", (event) => {
  if (!event.target.matches("[data-role]")) return;
  const field = event.target.form.querySelector("[data-add]");
  field.focus({ preventScroll: true });
  if (field.value) htmx.trigger(field, "input");
  const role = listOf(field)?.querySelector("input[name=role]");
  if (role) role.value = event.target.value;
});

// "find some": the first field that adds is filled with a word.
document.addEventListener("click", (event) => {
  const fill = event.target.closest("[data-fill]");
  if (!fill) return;
  const field = document.querySelector(".meals [data-add]");
  if (!field) return;
  field.value = fill.dataset.fill;
  field.focus();
  field.dispatchEvent(new Event("input", { bubbles: true }));
});
