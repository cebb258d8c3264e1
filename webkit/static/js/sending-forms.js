// Forms that are sent without htmx: by script, so that a failure leaves the page and what was
// typed as they are.
import { rebind, show } from "./not-sent.js";
import { pageId, shownVersion, token } from "./page.js";

document.addEventListener("submit", async (event) => {
  const form = event.target,
    submitter = event.submitter;
  const verb = submitter?.getAttribute("formmethod") || form.getAttribute("method") || "get";
  if (event.defaultPrevented || verb.toLowerCase() !== "post" || form.dataset.plain !== undefined)
    return;
  if (form.hasAttribute("hx-post") && !submitter?.hasAttribute("hx-disable")) {
    // drawn a moment ago and not yet taken over by htmx, which would have stopped the event: sent
    // by it all the same
    event.preventDefault();
    htmx.process(form);
    // a form cannot be sent again while it is being sent
    setTimeout(
      () => form.isConnected && form.requestSubmit(submitter?.isConnected ? submitter : undefined),
    );
    return;
  }
  event.preventDefault();
  if (form.dataset.sending) return;
  form.dataset.sending = "1";
  await keptFirst();
  const data = new FormData(form, submitter);
  if (token()) data.set("csrfmiddlewaretoken", token());
  if (data.has("version") && shownVersion(form)) data.set("version", shownVersion(form));
  let leaving = false;
  const retry = () => form.requestSubmit(submitter?.isConnected ? submitter : undefined);
  try {
    const answer = await fetch(form.getAttribute("action") || window.location.href, {
      method: "POST",
      body: data,
      headers: { "Sent-By": "page", "Page-Id": pageId, "Form-Key": form.dataset.formKey || "" },
      redirect: "manual",
    });
    const goTo = answer.headers.get("Go-To");
    if (goTo) {
      leaving = true;
      const there = new URL(goTo, window.location.href);
      if (there.pathname === window.location.pathname && there.search === window.location.search)
        window.location.reload();
      else window.location.assign(there);
      return;
    }
    const type = answer.headers.get("Content-Type") || "";
    if (
      (answer.ok || answer.status === 400 || answer.status === 409 || answer.status === 429) &&
      type.startsWith("text/html")
    ) {
      take(await answer.text());
      return;
    }
    show(
      answer.status,
      type.startsWith("text/plain") && answer.status !== 401 ? await answer.text() : "",
      retry,
      true,
    );
  } catch {
    show(0, "", retry, true);
  } finally {
    if (!leaving) delete form.dataset.sending;
  }
});

// What keeps itself and what is sent on purpose are never under way together: the one would be
// refused as older than the other.
async function keptFirst() {
  while (document.querySelector("[data-keeps].htmx-request"))
    await new Promise((go) => setTimeout(go, 30));
}
document.addEventListener("htmx:beforeRequest", (event) => {
  if (event.detail.elt.matches("[data-keeps]") && document.querySelector("form[data-sending]"))
    event.preventDefault();
});
// who comes back to a page as it was goes on with it
window.addEventListener("pageshow", () => {
  for (const form of document.querySelectorAll("form[data-sending]")) delete form.dataset.sending;
});

// The page that came as the answer, in place of this one: what stands in its form is what was
// typed.
function take(html) {
  const page = new DOMParser().parseFromString(html, "text/html");
  const frame = page.querySelector(".frame");
  if (!frame) {
    document.body.replaceChildren(...page.body.childNodes);
    return;
  }
  document.title = page.title;
  document.querySelector("#main").replaceWith(page.querySelector("#main"));
  const strip = document.querySelector(".strip"),
    other = page.querySelector(".strip");
  if (strip && other) strip.replaceWith(other);
  htmx.process(document.body);
  rebind();
  const first = document.querySelector("#main [role=alert]:not([hidden]), #main .error");
  if (first) first.scrollIntoView({ block: "center" });
}
