// Ticks that wait on the phone until they are sent, each with whose it is.
const WAITING = "shopping-ticks";
// Whether a tick is done with: kept, or refused for good, as one of a week that is gone. What waits
// for a connection, for a sign-in or for a server that is busy stays.
const DONE = "done";
const REFUSED = "refused";
const LATER = "later";
const NOT_FOR_GOOD = [401, 403, 408, 425, 429];

function all() {
  try {
    return JSON.parse(localStorage.getItem(WAITING) || "[]");
  } catch {
    return [];
  }
}

// What waits of one person's. What somebody else left on a phone that is shared is not sent in this
// one's name, and does not stay.
export function waiting(who) {
  const rows = all();
  const own = rows.filter((row) => row.who === who);
  if (who && own.length < rows.length) keep(own);
  return own;
}

export function keep(rows) {
  if (rows.length) localStorage.setItem(WAITING, JSON.stringify(rows));
  else localStorage.removeItem(WAITING);
}

export const forget = () => localStorage.removeItem(WAITING);

async function sent(row, sign) {
  const answer = await fetch(row.url, {
    method: "POST",
    body: new URLSearchParams({ key: row.key, on: row.on ? "1" : "0" }),
    headers: { Accept: "application/json", "Sent-By": "page", "X-CSRFToken": sign },
    redirect: "manual",
  });
  if (answer.ok) return DONE;
  const refused = answer.status >= 400 && answer.status < 500;
  return refused && !NOT_FOR_GOOD.includes(answer.status) ? REFUSED : LATER;
}

let sending = false;

// Send what waits, the oldest first, and say what is left of it; null while it is being sent.
export async function sendWaiting(who, sign) {
  if (sending) return null;
  sending = true;
  let refused = 0;
  try {
    let rows = waiting(who);
    while (rows.length) {
      const became = await sent(rows[0], sign);
      if (became === LATER) break;
      refused += became === REFUSED ? 1 : 0;
      // another may have come meanwhile
      rows = waiting(who).slice(1);
      keep(rows);
    }
  } catch {
    /* still out of reach */
  }
  sending = false;
  return said(waiting(who).length, refused);
}

function said(left, refused) {
  const waits = `${left} ${left === 1 ? "tick waits" : "ticks wait"} for a connection.`;
  const were = refused === 1 ? "tick was" : "ticks were";
  const gone = `${refused} ${were} refused: that list is no longer there.`;
  return [left ? waits : "", refused ? gone : ""].filter(Boolean).join(" ");
}
