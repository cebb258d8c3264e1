// A scale on this machine: its grams run live, and what lies on it is taken by a press, or by
// itself after two steady seconds. What it means for the strip and the round the server says.
const STEADY_MS = 2000;
const LEAST_G = 2;
const RETRY_MS = 2000;

const state = {
  socket: null,
  url: "",
  grams: null,
  base: 0,
  steadyFrom: 0,
  sent: null,
  busy: false,
};

const root = () => document.querySelector("[data-scale]");
const part = (name) => root()?.querySelector(`[data-scale-${name}]`);

function connect() {
  const place = root();
  if (!place) return;
  state.url = place.dataset.scale;
  try {
    state.socket = new WebSocket(state.url);
  } catch {
    return;
  }
  state.socket.addEventListener("message", heard);
  state.socket.addEventListener("close", lost);
}

function lost() {
  const was = state.connected;
  state.connected = false;
  state.grams = null;
  show();
  if (was) say("The connection to the scale is lost. It is tried again; a weight can be typed.");
  setTimeout(connect, RETRY_MS);
}

function heard(event) {
  const told = JSON.parse(event.data);
  if (told.kind === "scale") {
    state.connected = true;
    say(`${told.name}: put the bowl on it, and press Zero.`);
    return;
  }
  if (told.overload) {
    state.grams = null;
    state.steadyFrom = 0;
    show("too much");
    say("Too much lies on the scale: take something off.");
    return;
  }
  const first = state.grams === null;
  state.grams = told.g;
  if (first && state.sent === null) state.base = told.g;
  if (!told.stable) state.steadyFrom = 0;
  else if (!state.steadyFrom) state.steadyFrom = Date.now();
  show();
  follow();
  takeByItself();
}

// What lies on it since the part was begun; of a jar that stands on it, what was taken off.
function now() {
  if (state.grams === null) return null;
  const more = state.grams - state.base;
  return part("off")?.checked ? -more : more;
}

function show(words) {
  const grams = now();
  const shown = part("grams");
  if (!shown) return;
  shown.textContent = words ?? (grams === null ? "–" : `${Math.round(grams)} g`);
  shown.classList.toggle("moving", grams !== null && !state.steadyFrom);
  const zero = part("zero");
  const modes = part("modes");
  if (zero) zero.hidden = grams === null;
  if (modes) modes.hidden = grams === null;
  if (grams !== null && grams < -LEAST_G && !part("off")?.checked)
    say(`${Math.round(-grams)} g were scraped back: press the part before to weigh it again.`);
}

function say(words) {
  const said = part("said");
  if (said && said.textContent !== words) said.textContent = words;
}

// The strip and the round follow: one question at a time, the last weight always asked.
async function follow() {
  const place = root();
  const grams = now();
  if (!place?.dataset.part || grams === null || state.busy) return;
  const rounded = Math.max(Math.round(grams), 0);
  if (rounded === state.sent || (state.sent === null && rounded < LEAST_G)) return;
  state.busy = true;
  state.sent = rounded;
  const begun = performance.now();
  try {
    await htmx.ajax("POST", place.dataset.live, {
      target: "#scale-round",
      swap: "innerHTML",
      values: { part: place.dataset.part, grams: String(rounded) },
    });
    place.dataset.took = String(Math.round(performance.now() - begun));
  } finally {
    state.busy = false;
  }
}

function takeByItself() {
  if (!part("auto")?.checked || !state.steadyFrom) return;
  const grams = now();
  if (grams === null || grams < LEAST_G) return;
  if (Date.now() - state.steadyFrom >= STEADY_MS) take();
}

function take() {
  const place = root();
  const grams = now();
  if (!place?.dataset.part || grams === null) return;
  const values = {
    part: place.dataset.part,
    grams: String(Math.max(Math.round(grams * 10) / 10, 0)),
    version: document.getElementById("work").dataset.version,
  };
  const kept = { auto: part("auto")?.checked, off: part("off")?.checked };
  // what lies on it now is nothing for the next part
  state.base = state.grams;
  state.steadyFrom = 0;
  state.sent = null;
  htmx
    .ajax("POST", place.dataset.take, { target: "#work", swap: "morph:outerHTML", values })
    .then(() => {
      for (const [name, on] of Object.entries(kept)) {
        const box = part(name);
        if (box) box.checked = Boolean(on);
      }
      show();
    });
}

document.addEventListener(
  "submit",
  (event) => {
    if (!event.target.matches?.("[data-scale-take]")) return;
    const typed = part("typed")?.value.trim();
    if (typed || now() === null) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    take();
  },
  true,
);
document.addEventListener("click", (event) => {
  if (!event.target.closest?.("[data-scale-zero]")) return;
  state.base = state.grams ?? 0;
  state.sent = null;
  show();
});

// A body scale gives its weight to the form, which asks about it as about any other.
const body = document.querySelector("[data-body-scale]");
if (body) {
  body.addEventListener("click", () => {
    const socket = new WebSocket(body.dataset.bodyScale);
    const field = document.getElementById(body.dataset.fills);
    const said = document.getElementById(body.dataset.says);
    let steady = 0;
    said.textContent = "Step on the scale and stand still.";
    socket.addEventListener("error", () => {
      said.textContent = "No body scale is connected: type the weight.";
    });
    socket.addEventListener("message", (event) => {
      const told = JSON.parse(event.data);
      if (told.kind === "scale" || told.overload) return;
      steady = told.stable && told.g > 20000 ? steady || Date.now() : 0;
      if (steady && Date.now() - steady >= STEADY_MS) {
        field.value = (told.g / 1000).toFixed(1);
        said.textContent = `${field.value} kg from the scale: look at it, then keep it.`;
        field.dispatchEvent(new Event("input", { bubbles: true }));
        socket.close();
      }
    });
  });
}

if (root()) connect();
