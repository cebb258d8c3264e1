// What of a cooking session is to do, and what goes on: told from the plan and from what is done.

// The steps that want hands and are not done, by the clock.
export function waitingSteps(plan) {
  return plan.steps
    .filter((one) => one.hands > 0 && !plan.done[one.key])
    .sort((a, b) => a.start - b.start);
}

// What is still to be told: what was told and the plan does not know, as one that was kept on the
// device or asked for just before, and then what never arrived.
export function untold(plan, told, queue) {
  const known = new Set([...(plan.known || []), ...queue.map((one) => one.id)]);
  return [...told.filter((one) => !known.has(one.id)), ...queue];
}

// What goes on by itself: begun, and its next step by hand not done. It ends by the clock, counted
// from when it was begun.
export function timersOf(plan) {
  const out = [];
  for (const step of plan.steps) {
    if (!step.alone) continue;
    const first = firstOf(plan, step);
    const begun = first ? plan.done[first.key] : null;
    if (!begun || isOver(plan, step)) continue;
    out.push({ ...step, end: endOf(step, first, begun) });
  }
  return out.sort((a, b) => a.end - b.end);
}

// One timer for each piece of work: the first that is not over, else the last.
export function shownTimers(timers, now) {
  const shown = new Map();
  for (const one of timers) {
    const other = shown.get(one.task);
    if (!other || other.end <= now) shown.set(one.task, one);
  }
  return [...shown.values()];
}

// Whether a timer has come to its end; of what has gone on to the next one only within a minute.
export function rings(one, shown, now) {
  if (one.end > now) return false;
  return shown.includes(one) || now - one.end < 60000;
}

// The step by hand that a wait comes after, over waits between.
function firstOf(plan, step) {
  let at = step;
  while (at && !at.hands) {
    const start = at.start;
    at = plan.steps.find((one) => one.task === step.task && one.end === start);
  }
  return at;
}

// A timer is counted from when its step was done by hand, and as long as was planned.
function endOf(step, first, begun) {
  const shift = new Date(begun).getTime() - (first.start + first.hands * 60000);
  return step.end + shift;
}

// What comes after it was done: then it is no longer on.
function isOver(plan, step) {
  const after = plan.steps.filter(
    (one) => one.dish === step.dish && one.hands > 0 && one.start >= step.end,
  );
  return after.some((one) => plan.done[one.key]);
}

// "12:05", "1:02:00", "3 min over"
export function clockWords(milliseconds) {
  if (milliseconds <= 0) {
    const over = Math.floor(-milliseconds / 60000);
    return over ? `${over} min over` : "Time is up";
  }
  const seconds = Math.ceil(milliseconds / 1000);
  const minutes = Math.floor(seconds / 60);
  const two = (value) => String(value).padStart(2, "0");
  if (minutes >= 60) return `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(seconds % 60)}`;
  return `${minutes}:${two(seconds % 60)}`;
}

// How far a step is from its time: "in 4 min", "now", "3 min late".
export function behind(step, now) {
  const minutes = Math.round((step.start - now) / 60000);
  if (minutes > 90) return "";
  if (minutes > 1) return `in ${minutes} min`;
  if (minutes >= -1) return "now";
  return minutes > -600 ? `${-minutes} min late` : "";
}
