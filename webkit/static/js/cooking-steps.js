// What of a cooking session is to do, and what goes on: told from the plan and from what is done.

// The steps that want hands and are not done, by the clock.
export function waitingSteps(plan) {
  return plan.steps
    .filter((one) => one.hands > 0 && !plan.done[one.key])
    .sort((a, b) => a.start - b.start);
}

// What goes on by itself: begun, and its next step by hand not done. It ends by the clock, counted
// from when it was begun.
export function timersOf(plan) {
  const out = [];
  for (const step of plan.steps) {
    if (!step.alone) continue;
    const begun = step.hands > 0 ? plan.done[step.key] : begunBefore(plan, step);
    if (!begun || isOver(plan, step)) continue;
    out.push({ ...step, end: endOf(plan, step, begun) });
  }
  return out.sort((a, b) => a.end - b.end);
}

function begunBefore(plan, step) {
  const before = plan.steps.filter((one) => one.task === step.task && one.end === step.start);
  return before.length && before[0].hands > 0 ? plan.done[before[0].key] : null;
}

// A timer is counted from when its step was done by hand, and as long as was planned.
function endOf(plan, step, begun) {
  const first =
    step.hands > 0 ? step : plan.steps.find((o) => o.task === step.task && o.end === step.start);
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
