// What an open page tells with everything that it sends.
// What one open page sends after another of its own is no conflict with itself.
export const fresh = () =>
  crypto.randomUUID ? crypto.randomUUID() : `${Date.now()}-${Math.random()}`;
export const pageId = fresh();

// Each sending of a form has a key of its own; a second click right after the first is the same
// sending.
const SAME_CLICK = 700;
function giveKey(form) {
  const at = performance.now(),
    before = Number(form.dataset.sentAt || -1e9);
  if (!form.dataset.formKey || at - before > SAME_CLICK) form.dataset.formKey = fresh();
  form.dataset.sentAt = String(at);
}
document.addEventListener(
  "submit",
  (event) => {
    giveKey(event.target);
  },
  true,
);

export const token = () => (document.cookie.match(/(?:^|; )csrftoken=([^;]*)/) || [])[1];

// What is shown of a bowl or a day is drawn anew with each change: what is sent next is sent for
// what is shown now.
export function shownVersion(from) {
  const work = document.getElementById("work");
  return work?.dataset.version && !from.closest(".proposal") ? work.dataset.version : null;
}
