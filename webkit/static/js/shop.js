// A line of the shopping list is ticked at once. Without a connection the tick waits on the phone and is sent when there is one.
import { token } from "./page.js";

const WAITING = "shopping-ticks";
// What somebody else left on a phone that is shared is not sent in this one's name, and does not stay.
const who = document.body.dataset.who || "";
const all = () => { try { return JSON.parse(localStorage.getItem(WAITING) || "[]"); } catch { return []; } };
const waiting = () => all().filter((row) => row.who === who);
const keep = (rows) => (rows.length ? localStorage.setItem(WAITING, JSON.stringify(rows)) : localStorage.removeItem(WAITING));
const words = (text) => { const place = document.getElementById("kept-words"); if (place) place.textContent = text; };
if (who && all().some((row) => row.who !== who)) keep(waiting());

// Whether a tick is done with: kept, or refused for good, as one of a week that is gone. What waits for a connection, for a sign-in
// or for a server that is busy stays.
const DONE = "done", REFUSED = "refused", LATER = "later";
async function sent(row) {
  const sign = token() || document.querySelector("[name=csrfmiddlewaretoken]")?.value || "";
  const body = new URLSearchParams({ key: row.key, on: row.on ? "1" : "0" });
  const answer = await fetch(row.url, { method: "POST", body, headers: { Accept: "application/json", "Sent-By": "page", "X-CSRFToken": sign }, redirect: "manual" });
  if (answer.ok) return DONE;
  return answer.status >= 400 && answer.status < 500 && ![401, 403, 408, 425, 429].includes(answer.status) ? REFUSED : LATER;
}

let sending = false;
async function sendWaiting() {
  if (sending) return;
  sending = true;
  let refused = 0;
  try {
    let rows = waiting();
    while (rows.length) {
      const became = await sent(rows[0]);
      if (became === LATER) break;
      refused += became === REFUSED ? 1 : 0;
      rows = waiting().slice(1);
      keep(rows);
    }
  } catch { /* still out of reach */ }
  sending = false;
  const left = waiting().length;
  const said = [left ? `${left} ${left === 1 ? "tick waits" : "ticks wait"} for a connection.` : "", refused ? `${refused} ${refused === 1 ? "tick was" : "ticks were"} refused: that list is no longer there.` : ""];
  words(said.filter(Boolean).join(" "));
}

function count(line) {
  const trip = line.closest("section");
  const place = trip && trip.querySelector("[data-mark]");
  if (place) place.textContent = `${trip.querySelectorAll("[data-tick] input:checked").length} of ${trip.querySelectorAll("[data-tick]").length} bought`;
}

document.addEventListener("change", (event) => {
  const line = event.target.closest && event.target.closest("[data-tick]");
  if (!line) return;
  line.classList.toggle("ticked", event.target.checked);
  count(line);
  keep([...waiting(), { who, url: line.getAttribute("action"), key: line.elements.key.value, on: event.target.checked }]);
  sendWaiting();
});
window.addEventListener("online", sendWaiting);

// The page kept on the phone may be older than what was ticked on it since.
for (const row of waiting()) {
  const box = document.getElementById(`tick-${row.key}`);
  if (box) { box.checked = row.on; box.closest("[data-tick]").classList.toggle("ticked", row.on); count(box); }
}
if (waiting().length) sendWaiting();

document.addEventListener("click", async (event) => {
  const button = event.target.closest && event.target.closest("[data-keep-list]");
  if (!button) return;
  if (!("serviceWorker" in navigator)) { words("This browser cannot keep it: print it instead."); return; }
  try {
    await navigator.serviceWorker.register(button.dataset.keepList, { scope: window.location.pathname });
    const ready = await navigator.serviceWorker.ready;
    navigator.serviceWorker.addEventListener("message", (said) => { if (said.data.kept) words("Saved: it opens without a connection now."); });
    const parts = performance.getEntriesByType("resource").map((one) => one.name).filter((name) => name.startsWith(window.location.origin) && name !== window.location.href);
    ready.active.postMessage({ keep: [window.location.pathname, ...new Set(parts)] });
  } catch { words("It could not be saved here: print it instead."); }
});

// Whoever signs out leaves nothing behind on the phone.
document.addEventListener("submit", (event) => {
  if (!event.target.matches("[data-sign-out]")) return;
  localStorage.removeItem(WAITING);
  if ("caches" in window) caches.delete("shopping-list");
  navigator.serviceWorker?.getRegistrations().then((all) => all.forEach((one) => one.unregister()));
});
