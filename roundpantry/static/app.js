// What the server cannot do: keys, dragging, printing. Every number comes from the server.
"use strict";

const stageOf = (key) => document.querySelector(`[data-stage="${CSS.escape(key)}"]`);
let waitingForStage = false;

function typing(element) {
  return element && (element.matches("input:not([type=checkbox]):not([type=radio]), textarea, select") || element.isContentEditable);
}

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

document.addEventListener("click", (event) => {
  const target = event.target.closest("[data-keys-open], [data-print], [data-pick]");
  if (!target) return;
  if (target.hasAttribute("data-keys-open")) document.getElementById("keys").showModal();
  if (target.hasAttribute("data-print")) window.print();
  if (target.hasAttribute("data-pick")) {
    const select = document.getElementById(target.dataset.pick);
    select.value = target.dataset.value;
    for (const name of ["input", "change"]) select.dispatchEvent(new Event(name, { bubbles: true }));
  }
});

// A recipe is read while it is typed; a field in the reading itself waits until it is left.
document.addEventListener("input", (event) => {
  if (event.target.matches("[data-live]")) htmx.trigger(event.target.form, "typed");
});

document.addEventListener("change", (event) => {
  if (event.target.closest("#reckoned")) htmx.trigger("#recipe", "settled");
});

// How tall the strip is: what stays in sight or is scrolled to stands below it.
const strip = document.querySelector(".strip");
if (strip) new ResizeObserver(() => document.documentElement.style.setProperty("--strip", `${strip.offsetHeight}px`)).observe(strip);

// A first visit that was written on elsewhere: one's own in its place, for the version that stands there now.
document.addEventListener("click", (event) => {
  const mine = event.target.closest("[data-visit-mine]");
  if (!mine) return;
  document.getElementById("visit-version").value = mine.dataset.visitMine;
  htmx.trigger(document.querySelector("[data-keeps]"), "again");
});

// A choice that asks the page again.
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
});

// An amount is set when it is left or Enter is pressed, as without JavaScript by its button.
// It is sent once: Enter leaves nothing to do for the leaving.
function setAmount(field) {
  field.dataset.sent = field.value;
  field.form.requestSubmit(field.form.querySelector("button[name=set], button:not([name])"));
}
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-amount]") && event.target.dataset.sent !== event.target.value) setAmount(event.target);
});
document.addEventListener("keydown", (event) => {
  if (event.key !== "Enter" || !event.target.matches || !event.target.matches("[data-amount]")) return;
  event.preventDefault();
  setAmount(event.target);
});

// Keep the cursor where it was, and what was typed there, when the part of the page around it is drawn anew.
let kept = null;
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
  if (element && kept.value !== null && kept.value !== kept.sent) element.value = kept.value;
  kept = null;
});

// What was opened stays open when it is drawn anew.
const opened = new Set();
document.addEventListener("toggle", (event) => {
  const name = event.target.dataset && event.target.dataset.keepOpen;
  if (name && event.target.isConnected) opened[event.target.open ? "add" : "delete"](name);
}, true);
// The other targets are reckoned anew only while they are open, and once when they are opened.
let othersAreOld = false;
document.addEventListener("htmx:configRequest", (event) => {
  if (opened.has("strip") || !document.querySelector("#strip-others details")) event.detail.headers["Strip-Open"] = "1";
});
document.addEventListener("htmx:afterSwap", () => { othersAreOld = !opened.has("strip"); });
document.addEventListener("toggle", (event) => {
  if (!othersAreOld || !opened.has("strip") || event.target.dataset.keepOpen !== "strip") return;
  othersAreOld = false;
  if (document.getElementById("recipe")) htmx.trigger("#recipe", "settled");
  else htmx.ajax("GET", window.location.pathname, { target: "#work" });
}, true);
document.addEventListener("htmx:afterSettle", () => {
  for (const name of opened) document.querySelectorAll(`[data-keep-open="${name}"]`).forEach((details) => { details.open = true; });
});

// Dragging a handle of the round sends the share of the circle its part should have.
let drag = null;
document.addEventListener("pointerdown", (event) => {
  const handle = event.target.closest && event.target.closest("[data-drag]");
  if (!handle) return;
  event.preventDefault();
  drag = { part: handle.dataset.drag, start: Number(handle.dataset.start), busy: false, last: null, first: true };
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  const round = document.querySelector("[data-round]");
  const box = round.getBoundingClientRect();
  const x = event.clientX - box.left - box.width / 2;
  const y = box.height / 2 - (event.clientY - box.top);
  let angle = Math.atan2(x, y) - drag.start;
  if (angle < 0) angle += 2 * Math.PI;
  drag.last = angle / (2 * Math.PI);
  sendDrag();
});
document.addEventListener("pointerup", () => {
  if (drag) { drag.done = true; sendDrag(); }
});

function sendDrag() {
  if (!drag || drag.busy || drag.last === null) {
    if (drag && drag.done && !drag.busy) drag = null;
    return;
  }
  const work = document.getElementById("work").dataset;
  const values = { share: drag.last.toFixed(4), version: work.version };
  // one drag is one step for undo: only its first change is remembered
  if (!drag.first) values.dragging = "1";
  drag.first = false;
  drag.busy = true;
  drag.last = null;
  const current = drag;
  htmx.ajax("POST", `${work.parts}${drag.part}/`, { target: "#work", values }).finally(() => {
    current.busy = false;
    const handle = document.querySelector(`[data-drag="${current.part}"]`);
    if (handle) current.start = Number(handle.dataset.start);
    if (current.last !== null) sendDrag();
    else if (current.done) drag = null;
  });
}

// The cook view: timers that run on while other steps are read, lines ticked off, arrow keys from step to step.
const ticks = document.querySelector("[data-ticks]");
if (ticks) {
  const name = ticks.dataset.ticks;
  const boxes = [...ticks.querySelectorAll("input")];
  const read = () => JSON.parse(sessionStorage.getItem(name) || "[]");
  for (const box of boxes) box.checked = read().includes(box.value);
  const write = () => sessionStorage.setItem(name, JSON.stringify(boxes.filter((box) => box.checked).map((box) => box.value)));
  ticks.addEventListener("change", write);
  document.querySelector("[data-clear-ticks]").addEventListener("click", () => { for (const box of boxes) box.checked = false; write(); });
}

for (const timer of document.querySelectorAll("[data-timer]")) {
  const name = `timer ${timer.dataset.name}`;
  const shown = timer.querySelector("strong");
  const draw = () => {
    const end = Number(sessionStorage.getItem(name));
    if (!end) return;
    const left = Math.round((end - Date.now()) / 1000);
    shown.textContent = left > 0 ? `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}` : "Time is up";
    if (left <= 0) shown.setAttribute("aria-live", "assertive");
  };
  timer.querySelector("button").addEventListener("click", () => {
    sessionStorage.setItem(name, String(Date.now() + Number(timer.dataset.timer.replace(",", "")) * 60000));
    shown.setAttribute("aria-live", "off");
    draw();
  });
  draw();
  setInterval(draw, 1000);
}

document.addEventListener("keydown", (event) => {
  if (event.defaultPrevented || typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
  document.querySelector(`[data-key="${event.key}"]`)?.click();
});
