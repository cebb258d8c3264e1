// What htmx sends: told which page it comes from, and seen where it does not arrive.
import { hide, said, show } from "./not-sent.js";
import { pageId, shownVersion, token } from "./page.js";

// How long until what keeps itself is tried again, the longer the oftener it failed. [ms]
const WAITS = [3000, 6000, 12000, 30000];
let failures = 0;
let waiting = null;

document.addEventListener("htmx:configRequest", (event) => {
  event.detail.headers["Page-Id"] = pageId;
  // what keeps itself while it is typed is sent again and again on purpose
  const form = event.detail.elt.closest("form");
  if (
    event.detail.verb !== "get" &&
    form &&
    form.dataset.formKey &&
    !event.detail.elt.matches("[data-keeps]")
  )
    event.detail.headers["Form-Key"] = form.dataset.formKey;
  // the token may be newer than the page: somebody signed in again in another tab
  if (token()) event.detail.headers["X-CSRFToken"] = token();
  if ("csrfmiddlewaretoken" in event.detail.parameters && token())
    event.detail.parameters.csrfmiddlewaretoken = token();
});
document.addEventListener("htmx:configRequest", (event) => {
  const version = "version" in event.detail.parameters ? shownVersion(event.detail.elt) : null;
  if (version) event.detail.parameters.version = version;
});
function failed(event) {
  const { xhr, elt, requestConfig } = event.detail;
  const saving = requestConfig && requestConfig.verb !== "get" && !elt.matches("[data-preview]");
  const keeps = elt.matches?.("[data-keeps]");
  const retry = () =>
    keeps
      ? htmx.trigger(elt, "again")
      : elt.isConnected && (elt.matches("form") ? elt.requestSubmit() : elt.click());
  show(xhr ? xhr.status : 0, xhr ? said(xhr) : "", retry, saving || keeps);
  if (!keeps) return;
  const status = document.querySelector("[data-kept-status]");
  if (status) status.textContent = "Not saved. Trying again …";
  clearTimeout(waiting);
  waiting = setTimeout(
    () => {
      waiting = null;
      htmx.trigger(elt, "again");
    },
    WAITS[Math.min(failures, WAITS.length - 1)],
  );
  failures += 1;
}
for (const name of ["htmx:responseError", "htmx:sendError", "htmx:timeout"])
  document.addEventListener(name, failed);
document.addEventListener("htmx:afterRequest", (event) => {
  const { elt, successful, requestConfig } = event.detail;
  if (!successful || !elt.matches) return;
  if (elt.matches("[data-keeps]")) {
    failures = 0;
    clearTimeout(waiting);
    waiting = null;
    hide();
  } else if (waiting === null && requestConfig.verb !== "get" && !elt.matches("[data-preview]"))
    hide();
});
