// What is to do in a session and what goes on by itself.
import assert from "node:assert/strict";
import { test } from "node:test";
import {
  behind,
  clockWords,
  rings,
  shownTimers,
  timersOf,
  untold,
  waitingSteps,
} from "../../static/js/cooking-steps.js";

const MIN = 60000;
// A pot put on at minute 10 (two minutes by hand, twenty alone), drained at 32; a salad at 5.
const plan = (done = {}) => ({
  done,
  steps: [
    { key: "a0", task: "a", dish: "d1", start: 10 * MIN, end: 32 * MIN, hands: 2, alone: 20 },
    { key: "a1", task: "b", dish: "d1", start: 32 * MIN, end: 33 * MIN, hands: 1, alone: 0 },
    { key: "c0", task: "c", dish: "d2", start: 5 * MIN, end: 9 * MIN, hands: 4, alone: 0 },
  ],
});
const at = (minutes) => new Date(minutes * MIN).toISOString();

test("what is to do stands by the clock, without what is done or wants no hands", () => {
  assert.deepEqual(
    waitingSteps(plan()).map((one) => one.key),
    ["c0", "a0", "a1"],
  );
  assert.deepEqual(
    waitingSteps(plan({ c0: at(9) })).map((one) => one.key),
    ["a0", "a1"],
  );
});

test("a timer runs from when its step was done by hand, until what follows is done", () => {
  assert.deepEqual(timersOf(plan()), []);
  const [timer] = timersOf(plan({ a0: at(12) }));
  assert.equal(timer.end, 32 * MIN);
  // put on four minutes late, it is over four minutes later
  assert.equal(timersOf(plan({ a0: at(16) }))[0].end, 36 * MIN);
  assert.deepEqual(timersOf(plan({ a0: at(12), a1: at(33) })), []);
  // another dish's step ends nothing
  assert.equal(timersOf(plan({ a0: at(12), c0: at(40) })).length, 1);
});

test("what goes on by itself after a step is counted from that step", () => {
  const rested = {
    done: { r0: at(11) },
    steps: [
      { key: "r0", task: "r", dish: "d1", start: 8 * MIN, end: 10 * MIN, hands: 2, alone: 0 },
      { key: "r1", task: "r", dish: "d1", start: 10 * MIN, end: 40 * MIN, hands: 0, alone: 30 },
    ],
  };
  const [timer] = timersOf(rested);
  assert.equal(timer.end, 41 * MIN);
  rested.done = {};
  assert.deepEqual(timersOf(rested), []);
});

test("of a pot that comes to the boil and then simmers one timer shows", () => {
  const pot = { task: "p", dish: "d1" };
  const boiled = {
    done: { p0: at(1) },
    steps: [
      { ...pot, key: "p0", start: 0, end: 10 * MIN, hands: 1, alone: 9 },
      { ...pot, key: "p1", start: 10 * MIN, end: 40 * MIN, hands: 0, alone: 30 },
      { ...pot, key: "p2", start: 40 * MIN, end: 50 * MIN, hands: 0, alone: 10 },
    ],
  };
  const all = timersOf(boiled);
  assert.deepEqual(
    all.map((one) => one.end / MIN),
    [10, 40, 50],
  );
  const keys = (minutes) => shownTimers(all, minutes * MIN).map((one) => one.key);
  assert.deepEqual(keys(9), ["p0"]);
  assert.deepEqual(keys(10), ["p1"]);
  assert.deepEqual(keys(45), ["p2"]);
  assert.deepEqual(keys(70), ["p2"]);
  const rung = (minutes) => {
    const shown = shownTimers(all, minutes * MIN);
    return all.filter((one) => rings(one, shown, minutes * MIN)).map((one) => one.key);
  };
  assert.deepEqual(rung(9), []);
  assert.deepEqual(rung(10), ["p0"]);
  // what has gone on to the next does not ring later, the last rings for as long as it is over
  assert.deepEqual(rung(11), []);
  assert.deepEqual(rung(120), ["p2"]);
});

test("what was told and a page does not know is told again, in its order", () => {
  const told = [{ id: "a" }, { id: "b" }, { id: "c" }];
  const queue = [{ id: "c" }, { id: "d" }];
  const keys = (plan, sent, waits) => untold(plan, sent, waits).map((one) => one.id);
  assert.deepEqual(keys({ known: ["a"] }, told, queue), ["b", "c", "d"]);
  assert.deepEqual(keys({ known: ["a", "b", "c"] }, told, []), []);
  assert.deepEqual(keys({}, told, []), ["a", "b", "c"]);
  // what waits goes again though it arrived: the answer was lost
  assert.deepEqual(keys({ known: ["d"] }, [], [{ id: "d" }]), ["d"]);
});

test("what is left, in words", () => {
  assert.equal(clockWords(5 * MIN), "5:00");
  assert.equal(clockWords(65 * 1000), "1:05");
  assert.equal(clockWords(59 * MIN + 59 * 1000), "59:59");
  assert.equal(clockWords(60 * MIN), "1:00:00");
  assert.equal(clockWords(1), "0:01");
  assert.equal(clockWords(0), "Time is up");
  assert.equal(clockWords(-59 * 1000), "Time is up");
  assert.equal(clockWords(-3 * MIN), "3 min over");
});

test("how far a step is from its time", () => {
  const step = { start: 100 * MIN };
  for (const [now, words] of [
    [9, ""],
    [10, "in 90 min"],
    [98, "in 2 min"],
    [99, "now"],
    [101, "now"],
    [102, "2 min late"],
    [699, "599 min late"],
    [700, ""],
  ])
    assert.equal(behind(step, now * MIN), words, String(now));
});
