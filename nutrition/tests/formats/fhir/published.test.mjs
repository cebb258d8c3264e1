// A client as a FHIR R4 bundle, against the published definitions and the value sets they require.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import test from "node:test";
import { Fhir } from "fhir";

const bundle = JSON.parse(readFileSync(new URL("usual.json", import.meta.url), "utf8"));
const validated = (one) => new Fhir().validate(one, { errorOnUnexpected: true });

test("a client with one of everything is valid", () => {
  const { valid, messages } = validated(bundle);
  assert.deepEqual(
    messages.filter((one) => one.severity === "error" || one.severity === "fatal"),
    [],
  );
  assert.equal(valid, true);
});

test("what is missing, unknown or outside a required value set is not", () => {
  for (const change of [
    (one) => delete one.status,
    (one) => Object.assign(one, { status: "done" }),
    (one) => Object.assign(one, { weight: 61 }),
  ]) {
    const wrong = structuredClone(bundle);
    change(wrong.entry.find((one) => one.resource.resourceType === "Observation").resource);
    assert.equal(validated(wrong).valid, false);
  }
});
