// The cook page of a session: what now, what next, timers by the clock that run on when the page is
// loaded again or the tablet sleeps, a queue of what was told while there was no connection.

import {
  behind,
  clockWords,
  rings,
  shownTimers,
  timersOf,
  untold,
  waitingSteps,
} from "./cooking-steps.js";
import { fresh, token } from "./page.js";

// So many of those told are remembered, for a page that is older than they are.
const MOST_TOLD = 100;

const place = document.getElementById("cooking");
if (place) begin(place);

function begin(root) {
  const plan = JSON.parse(document.getElementById("cook-plan").textContent);
  const who = document.body.dataset.who || "";
  const queueName = `cooking ${who} ${plan.session}`;
  const toldName = `told ${who} ${plan.session}`;
  const ticksName = `ticks ${who} ${plan.session}`;
  const stored = (name) => {
    try {
      return JSON.parse(localStorage.getItem(name) || "[]");
    } catch {
      return [];
    }
  };
  const queue = untold(plan, stored(toldName), stored(queueName));
  const state = { plan, queue, rung: new Set(), busy: false };

  // what was told here and has not arrived yet holds here already
  for (const event of state.queue) apply(state.plan, event);

  function tell(kind, about, minutes = 0) {
    document.getElementById("cook-rung").textContent = "";
    const event = { id: fresh(), kind, about, minutes, at: Date.now() };
    state.queue.push(event);
    root.dataset.waiting = state.queue.length;
    localStorage.setItem(queueName, JSON.stringify(state.queue));
    apply(state.plan, event);
    draw();
    send();
  }

  // with nothing to tell it asks what others told
  async function send(asks = false) {
    if (state.busy || !(asks || state.queue.length)) return said();
    state.busy = true;
    let arrived = false;
    const sent = state.queue.slice(0, 100);
    try {
      const answer = await fetch(root.dataset.events, {
        method: "POST",
        body: JSON.stringify(sent),
        headers: {
          "Content-Type": "application/json",
          "X-CSRFToken": token() || "",
          "Sent-By": "page",
        },
        redirect: "manual",
      });
      if (answer.ok) {
        const told = await answer.json();
        arrived = true;
        const gone = new Set(sent.map((one) => one.id));
        state.queue = state.queue.filter((one) => !gone.has(one.id));
        localStorage.setItem(queueName, JSON.stringify(state.queue));
        if (sent.length) {
          const all = [...stored(toldName), ...sent].slice(-MOST_TOLD);
          localStorage.setItem(toldName, JSON.stringify(all));
        }
        if (told.steps) state.plan = told;
        for (const event of state.queue) apply(state.plan, event);
        draw();
      }
    } catch {
      // out of reach: it waits
    }
    state.busy = false;
    said();
    // what was told meanwhile goes at once
    if (arrived && state.queue.length) send();
  }

  function said() {
    const left = state.queue.length;
    root.dataset.waiting = left;
    const words = left
      ? `No connection: ${left} ${left === 1 ? "thing waits" : "things wait"} here for one.`
      : state.kept
        ? "This page is kept on this device: it opens without a connection as well."
        : "";
    const shown = document.getElementById("cook-kept");
    if (shown && shown.textContent !== words) shown.textContent = words;
  }

  function draw() {
    const now = Date.now();
    const waiting = waitingSteps(state.plan);
    drawNow(waiting[0], now);
    drawNext(waiting.slice(1));
    drawTimers(timersOf(state.plan), now);
    for (const [letter, at] of Object.entries(state.plan.ready)) {
      const shown = root.querySelector(`[data-ready="${letter}"]`);
      if (shown) shown.textContent = `ready ${at}`;
    }
  }

  function drawNow(step, now) {
    const box = document.getElementById("cook-now");
    const name = step ? `${step.key} ${step.start} ${step.end}` : "none";
    if (box.dataset.shows === name) {
      const early = box.querySelector("[data-early]");
      if (early && step) early.textContent = behind(step, now);
      return;
    }
    box.dataset.shows = name;
    box.replaceChildren();
    if (!step) {
      box.append(made("p", "step-text", "All steps are done."));
      // whoever cooks by a link weighs nothing into the record
      if (!root.dataset.weigh) return;
      const link = made("a", "button huge", "What did it come to?");
      link.href = root.dataset.weigh;
      link.addEventListener("click", () => tell("ended", ""));
      box.append(link);
      return;
    }
    const head = made("p", "step-head");
    head.append(made("span", "dish-letter", state.plan.letters[step.dish] || ""));
    head.append(made("span", "", ` ${step.name}`));
    box.append(head, made("p", "step-text", `${step.at}  ${step.text}`));
    const heat = step.celsius ? `${step.celsius} °C. ` : "";
    const alone = step.alone ? ` then ${step.alone} min by itself` : "";
    box.append(made("p", "quiet", `${heat}${step.hands} min by hand${alone}.`));
    const early = made("p", "ask", behind(step, now));
    early.dataset.early = "";
    box.append(early);
    for (const note of step.notes) box.append(made("p", "quiet", note));
    if (step.lines.length) box.append(linesOf(step));
    const doing = made("p", "cook-doing");
    doing.append(pressed("Done", "button huge", () => tell("done", step.key)));
    if (step.alone || step.hands > 2)
      doing.append(pressed("5 min longer", "button plain huge", () => tell("longer", step.key, 5)));
    const last = lastDone();
    if (last)
      doing.append(pressed("Back one", "button plain huge", () => tell("undone", last.key)));
    box.append(doing);
  }

  function lastDone() {
    const done = state.plan.steps.filter((one) => state.plan.done[one.key] && one.hands);
    return done.sort((a, b) => (state.plan.done[a.key] < state.plan.done[b.key] ? 1 : -1))[0];
  }

  function linesOf(step) {
    const ticked = new Set(stored(ticksName));
    const list = made("ul", "tick-off");
    for (const line of step.lines) {
      const item = made("li", "");
      const label = made("label", "");
      const box = made("input", "");
      box.type = "checkbox";
      box.checked = ticked.has(line.id);
      box.addEventListener("change", () => {
        const now = new Set(stored(ticksName));
        if (box.checked) now.add(line.id);
        else now.delete(line.id);
        localStorage.setItem(ticksName, JSON.stringify([...now]));
      });
      const words = [line.words, line.name].filter(Boolean).join(" ");
      label.append(box, made("span", "", ` ${words}`));
      if (line.caution) label.append(made("span", "quiet", ` ${line.caution}`));
      item.append(label);
      list.append(item);
    }
    return list;
  }

  function drawNext(steps) {
    const list = document.getElementById("cook-next");
    const name = steps.map((one) => `${one.key} ${one.start}`).join();
    if (list.dataset.shows === name) return;
    list.dataset.shows = name;
    list.replaceChildren(
      ...steps.slice(0, 12).map((step) => {
        const item = made("li", "");
        item.append(made("span", "step-time", step.at));
        item.append(made("span", "dish-letter small", state.plan.letters[step.dish] || ""));
        item.append(made("span", "", ` ${step.text}`));
        return item;
      }),
    );
  }

  function drawTimers(all, now) {
    const list = document.getElementById("cook-timers");
    const timers = shownTimers(all, now);
    for (const one of all) {
      if (rings(one, timers, now) && !state.rung.has(one.key + one.end)) ring(one);
    }
    const name = timers.map((one) => one.key + one.end).join();
    if (list.dataset.shows !== name) {
      list.dataset.shows = name;
      list.replaceChildren(...timers.map(timerItem));
      if (!timers.length) list.append(made("li", "quiet", "Nothing yet."));
    }
    for (const one of timers) {
      const shown = document.getElementById(`left ${one.key}`);
      if (shown) shown.textContent = clockWords(one.end - now);
      shown?.closest("li").classList.toggle("up", one.end <= now);
    }
  }

  function timerItem(one) {
    const item = made("li", "cook-timer");
    const left = made("strong", "", "");
    left.id = `left ${one.key}`;
    left.setAttribute("role", "timer");
    item.append(left, made("span", "dish-letter small", state.plan.letters[one.dish] || ""));
    item.append(made("span", "timer-words", ` ${one.text}`));
    item.append(pressed("5 min longer", "button plain", () => tell("longer", one.key, 5)));
    return item;
  }

  function ring(one) {
    state.rung.add(one.key + one.end);
    const words = `${one.name}: ${one.text}. Time is up.`;
    const shown = document.getElementById("cook-rung");
    if (shown) shown.textContent = words;
    beep();
    if ("speechSynthesis" in window) {
      window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
    }
  }

  let sound = null;
  function beep() {
    if (!sound) return;
    for (const at of [0, 0.4, 0.8]) {
      const tone = sound.createOscillator();
      tone.frequency.value = 880;
      tone.connect(sound.destination);
      tone.start(sound.currentTime + at);
      tone.stop(sound.currentTime + at + 0.25);
    }
  }

  // sound and a screen that stays awake both want a touch first
  document.addEventListener("pointerdown", () => {
    if (!sound && window.AudioContext) sound = new window.AudioContext();
    stayAwake();
  });
  async function stayAwake() {
    try {
      if (!state.awake || state.awake.released)
        state.awake = await navigator.wakeLock?.request("screen");
    } catch {
      // the tablet does not let it
    }
  }
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState !== "visible") return;
    stayAwake();
    draw();
    send(true);
  });
  window.addEventListener("online", () => send(true));
  setInterval(draw, 1000);
  setInterval(() => send(document.visibilityState === "visible"), 15000);
  keepPage(root.dataset.worker, () => {
    state.kept = true;
    said();
  });
  draw();
  send();
}

function apply(plan, event) {
  const at = new Date(event.at).toISOString();
  if (event.kind === "done" && !plan.done[event.about]) plan.done[event.about] = at;
  if (event.kind === "undone") delete plan.done[event.about];
  if (event.kind === "longer") {
    // until the server has planned the rest, everything that is to come moves along
    const own = plan.steps.find((one) => one.key === event.about);
    const more = event.minutes * 60000;
    for (const step of plan.steps) {
      if (own && step.task === own.task && step.end >= own.end) step.end += more;
      else if (own && step.start >= own.end && !plan.done[step.key]) {
        step.start += more;
        step.end += more;
      }
    }
  }
}

function made(tag, className, text = "") {
  const node = document.createElement(tag);
  if (className) node.className = className;
  if (text) node.textContent = text;
  return node;
}

function pressed(text, className, then) {
  const button = made("button", className, text);
  button.type = "button";
  button.addEventListener("click", then);
  return button;
}

// The page opens again without a connection: it is kept with what it needs.
async function keepPage(worker, then) {
  if (!("serviceWorker" in navigator) || !worker) return;
  try {
    await navigator.serviceWorker.register(worker, { scope: window.location.pathname });
    const ready = await navigator.serviceWorker.ready;
    navigator.serviceWorker.addEventListener("message", (said) => said.data?.kept && then());
    const parts = performance
      .getEntriesByType("resource")
      .map((one) => one.name)
      .filter((name) => name.startsWith(window.location.origin) && !name.includes("?"));
    ready.active.postMessage({ keep: [window.location.pathname, ...new Set(parts)] });
  } catch {
    // it works without, as long as it stays open
  }
}
