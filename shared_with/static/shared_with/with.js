// What a client tells on their phone is shown at once, waits on the phone without a connection, and
// is sent when there is one: each thing with a name of its own, so that nothing is told twice.
import { NAME, fresh, later, left } from "./outbox.js";

const told = document.body.dataset.told;
const outbox = () => {
  try {
    return JSON.parse(localStorage.getItem(NAME(told)) || "[]");
  } catch {
    return [];
  }
};
const keep = (rows) => localStorage.setItem(NAME(told), JSON.stringify(rows));

function waits() {
  const place = document.getElementById("with-waiting");
  const words = later(outbox().length);
  if (!place) return;
  place.hidden = !words;
  if (place.textContent !== words) place.textContent = words;
}

function refused(words) {
  const place = document.getElementById("with-refused");
  for (const one of words) {
    const line = document.createElement("p");
    line.textContent = one;
    place.append(line);
  }
  if (words.length) place.hidden = false;
}

let busy = false;
async function send() {
  if (busy || !outbox().length) return waits();
  busy = true;
  const sent = outbox().slice(0, 100);
  let arrived = false;
  try {
    const answer = await fetch(told, {
      method: "POST",
      body: JSON.stringify(sent),
      headers: { "Content-Type": "application/json", "Sent-By": "page" },
    });
    if (answer.ok) {
      const said = await answer.json();
      keep(left(outbox(), said));
      refused(Object.values(said.refused));
      arrived = true;
    } else if (answer.status === 410 || answer.status === 404) {
      refused(["This link does not open any more: what you told here is kept on this phone only."]);
    }
  } catch {
    // out of reach: it waits
  }
  busy = false;
  waits();
  if (arrived && outbox().length) send();
}

function show(form, words) {
  const place = form.querySelector(".with-said");
  if (place) place.textContent = words;
}

// "Instead" asks what it was before anything is told.
document.addEventListener("click", (event) => {
  const button = event.target.closest?.("[data-how]");
  if (!button || button.dataset.how !== "instead") return;
  event.preventDefault();
  const asks = button.form.querySelector(".with-instead");
  asks.hidden = false;
  asks.querySelector("input").focus();
});

document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("[data-tell]")) return;
  event.preventDefault();
  const data = Object.fromEntries(new FormData(form, event.submitter));
  const row = { ...data, name: fresh(), at: Date.now() };
  keep([...outbox(), row]);
  for (const one of form.querySelectorAll("[data-how]")) {
    one.setAttribute("aria-pressed", String(one.dataset.how === data.how));
  }
  const words = { planned: "as planned", less: "less", instead: `instead: ${data.text}` };
  show(form, words[data.how] ?? "told, thank you");
  if (data.how === "instead") form.querySelector(".with-instead").hidden = true;
  if (!data.how) form.reset();
  send();
});

// A line of the shopping list, told the same way as on the practice's own page.
if (document.querySelector("[data-tick]")) import("/static/js/shop.js");
if (document.getElementById("cooking")) import("/static/js/cooking.js");

window.addEventListener("online", send);
if (told) {
  waits();
  send();
  keepPages();
}

// This page and the list open without a connection as well.
async function keepPages() {
  if (!("serviceWorker" in navigator)) return;
  const scope = document.body.dataset.worker.replace(/worker\.js$/, "");
  try {
    await navigator.serviceWorker.register(document.body.dataset.worker, { scope });
    const ready = await navigator.serviceWorker.ready;
    const parts = performance
      .getEntriesByType("resource")
      .map((one) => one.name)
      .filter((name) => new URL(name).pathname.startsWith("/static/"));
    const pages = [...document.querySelectorAll(".with-pages a")]
      .map((one) => new URL(one.href).pathname)
      .filter((name) => name === scope || name.endsWith("/list/"));
    const here = [scope, ...pages].filter((name, at, all) => all.indexOf(name) === at);
    // it is kept once the worker says so
    navigator.serviceWorker.addEventListener("message", (said) => {
      if (said.data?.kept) document.documentElement.dataset.kept = "1";
    });
    ready.active.postMessage({ keep: [...here, ...new Set(parts)] });
  } catch {
    // nothing is kept: the page works while there is a connection
  }
}
