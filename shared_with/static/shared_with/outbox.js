// What waits on the phone to be told.

// Where the things of one link wait: of another link nothing is mixed in.
export const NAME = (address) => `told ${address}`;

// A name that no other thing has.
export function fresh() {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  return `p${[...bytes].map((one) => one.toString(16).padStart(2, "0")).join("")}`;
}

// What is left of it after an answer: what was taken or refused is not sent again.
export function left(rows, answer) {
  const gone = new Set([...answer.taken, ...Object.keys(answer.refused)]);
  return rows.filter((one) => !gone.has(one.name));
}

// What is said of so many things that wait; nothing of none.
export function later(count) {
  if (!count) return "";
  const things = count === 1 ? "1 thing waits" : `${count} things wait`;
  return `No connection: ${things} on this phone, and will be sent by itself.`;
}
