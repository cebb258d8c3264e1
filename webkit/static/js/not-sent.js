// What is sent and does not arrive is seen: nothing is lost in silence, what was typed stays, and
// it can be sent again.
const box = document.getElementById("not-sent");
const words = box.querySelector("[data-not-sent-words]");
const signIn = box.querySelector("[data-sign-in]");
let again = null;

function why(status) {
  if (status === 0) return "There is no connection to Round Pantry.";
  if (status === 401) return "You are signed out.";
  if (status === 403)
    return "It was refused: you may have signed in anew elsewhere, or it is not yours.";
  if (status === 404 || status === 410) return "What it belongs to is no longer there.";
  if (status === 413) return "It is too much to keep.";
  return `Round Pantry could not do it (${status}).`;
}

export function show(status, detail, retry, saving) {
  again = retry;
  const what = saving ? "Not saved." : "No answer.";
  words.textContent = `${what} ${detail || why(status)} What you typed is still here.`;
  signIn.hidden = status !== 401 && status !== 403;
  box.hidden = false;
}

export function hide() {
  box.hidden = true;
  again = null;
}

// what the server says in plain words, where it does
export const said = (xhr) =>
  (xhr.getResponseHeader("Content-Type") || "").startsWith("text/plain") && xhr.status !== 401
    ? xhr.responseText
    : "";

box.querySelector("[data-send-again]").addEventListener("click", () => {
  const retry = again;
  hide();
  if (retry) retry();
});
box.querySelector("[data-not-sent-close]").addEventListener("click", hide);

// the notice stands within what was replaced
export function rebind() {
  const fresh = document.getElementById("not-sent");
  if (fresh !== box) fresh.replaceWith(box);
  hide();
}
