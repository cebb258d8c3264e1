// Ticks of the shopping list without a connection.
import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";
import { page } from "./page.mjs";

const row = (key, who = "1") => ({ who, url: "/tick/", key, on: true });
let ticks;
let asked;

function answering(...statuses) {
  asked = [];
  globalThis.fetch = async (url, { body, headers }) => {
    asked.push([url, body.toString(), headers["X-CSRFToken"]]);
    const status = statuses.shift();
    if (status === undefined) throw new TypeError("no connection");
    return { ok: status < 300, status };
  };
}

beforeEach(async () => {
  [ticks] = await page("", "ticks");
});

test("what was ticked without a connection is sent in its order when there is one", async () => {
  answering();
  ticks.keep([row("kale"), { ...row("dill"), on: false }]);
  assert.equal(await ticks.sendWaiting("1", "sign"), "2 ticks wait for a connection.");
  answering(200, 204);
  assert.equal(await ticks.sendWaiting("1", "sign"), "");
  assert.deepEqual(asked, [
    ["/tick/", "key=kale&on=1", "sign"],
    ["/tick/", "key=dill&on=0", "sign"],
  ]);
  assert.deepEqual(ticks.waiting("1"), []);
});

test("what is refused for good is dropped and said, what may go later stays", async () => {
  for (const status of [401, 403, 408, 425, 429, 500, 503, 302]) {
    answering(status);
    ticks.keep([row("kale")]);
    assert.equal(
      await ticks.sendWaiting("1", ""),
      "1 tick waits for a connection.",
      String(status),
    );
  }
  for (const status of [400, 404, 409, 410]) {
    answering(status);
    ticks.keep([row("kale")]);
    assert.equal(
      await ticks.sendWaiting("1", ""),
      "1 tick was refused: that list is no longer there.",
      String(status),
    );
    assert.deepEqual(ticks.waiting("1"), []);
  }
});

test("what somebody else left is not sent and does not stay", async () => {
  answering(200);
  ticks.keep([row("kale", "2"), row("dill")]);
  await ticks.sendWaiting("1", "");
  assert.equal(asked.length, 1);
  assert.equal(localStorage.getItem("shopping-ticks"), null);
});

test("one that comes while others are sent is not lost, and nothing is sent twice", async () => {
  asked = [];
  globalThis.fetch = async (_url, { body }) => {
    asked.push(body.get("key"));
    if (asked.length === 1) {
      ticks.keep([...ticks.waiting("1"), row("dill")]);
      assert.equal(await ticks.sendWaiting("1", ""), null, "it is being sent");
    }
    return { ok: true, status: 200 };
  };
  ticks.keep([row("kale")]);
  await ticks.sendWaiting("1", "");
  assert.deepEqual(asked, ["kale", "dill"]);
});

test("what is kept and cannot be read is nothing", () => {
  localStorage.setItem("shopping-ticks", "{not json");
  assert.deepEqual(ticks.waiting("1"), []);
});
