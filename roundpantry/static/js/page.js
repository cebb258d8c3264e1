// What an open page tells with everything that it sends.
// What one open page sends after another of its own is no conflict with itself.
export const pageId = crypto.randomUUID ? crypto.randomUUID() : String(Math.random()).slice(2);

export const token = () => (document.cookie.match(/(?:^|; )csrftoken=([^;]*)/) || [])[1];

// What is shown of a bowl or a day is drawn anew with each change: what is sent next is sent for what is shown now.
export function shownVersion(from) {
  const work = document.getElementById("work");
  return work && work.dataset.version && !from.closest(".proposal") ? work.dataset.version : null;
}
