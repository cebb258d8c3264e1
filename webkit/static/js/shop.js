// A line of the shopping list is ticked at once. Without a connection the tick waits on the phone
// and is sent when there is one.
import { token } from "./page.js";
import { forget, keep, sendWaiting, waiting } from "./ticks.js";

const who = document.body.dataset.who || "";
const words = (text) => {
  const place = document.getElementById("kept-words");
  if (place) place.textContent = text;
};

async function tell() {
  const sign = token() || document.querySelector("[name=csrfmiddlewaretoken]")?.value || "";
  const said = await sendWaiting(who, sign);
  if (said !== null) words(said);
}

function count(line) {
  const trip = line.closest("section");
  const place = trip?.querySelector("[data-mark]");
  if (!place) return;
  const ticked = trip.querySelectorAll("[data-tick] input:checked").length;
  place.textContent = `${ticked} of ${trip.querySelectorAll("[data-tick]").length} bought`;
}

document.addEventListener("change", (event) => {
  const line = event.target.closest?.("[data-tick]");
  if (!line) return;
  line.classList.toggle("ticked", event.target.checked);
  count(line);
  keep([
    ...waiting(who),
    {
      who,
      url: line.getAttribute("action"),
      key: line.elements.key.value,
      on: event.target.checked,
    },
  ]);
  tell();
});
window.addEventListener("online", tell);

// The page kept on the phone may be older than what was ticked on it since.
for (const row of waiting(who)) {
  const box = document.getElementById(`tick-${row.key}`);
  if (box) {
    box.checked = row.on;
    box.closest("[data-tick]").classList.toggle("ticked", row.on);
    count(box);
  }
}
if (waiting(who).length) tell();

document.addEventListener("click", async (event) => {
  const button = event.target.closest?.("[data-keep-list]");
  if (!button) return;
  if (!("serviceWorker" in navigator)) {
    words("This browser cannot keep it: print it instead.");
    return;
  }
  try {
    await navigator.serviceWorker.register(button.dataset.keepList, {
      scope: window.location.pathname,
    });
    const ready = await navigator.serviceWorker.ready;
    navigator.serviceWorker.addEventListener("message", (said) => {
      if (said.data.kept) words("Saved: it opens without a connection now.");
    });
    const parts = performance
      .getEntriesByType("resource")
      .map((one) => one.name)
      .filter((name) => name.startsWith(window.location.origin) && name !== window.location.href);
    ready.active.postMessage({ keep: [window.location.pathname, ...new Set(parts)] });
  } catch {
    words("It could not be saved here: print it instead.");
  }
});

// Whoever signs out leaves nothing behind on the phone.
document.addEventListener("submit", async (event) => {
  if (!event.target.matches("[data-sign-out]")) return;
  forget();
  if ("caches" in window) caches.delete("shopping-list");
  const workers = (await navigator.serviceWorker?.getRegistrations()) ?? [];
  for (const worker of workers) worker.unregister();
});
