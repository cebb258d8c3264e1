// What is sent and does not arrive is seen: nothing is lost in silence, what was typed stays, and it can be sent again.
"use strict";

(() => {
  const box = document.getElementById("not-sent");
  const words = box.querySelector("[data-not-sent-words]");
  const signIn = box.querySelector("[data-sign-in]");
  let again = null;
  // How long until what keeps itself is tried again, the longer the oftener it failed. [ms]
  const WAITS = [3000, 6000, 12000, 30000];
  let failures = 0;
  let waiting = null;

  // What one open page sends after another of its own is no conflict with itself.
  const pageId = crypto.randomUUID ? crypto.randomUUID() : String(Math.random()).slice(2);

  const token = () => (document.cookie.match(/(?:^|; )csrftoken=([^;]*)/) || [])[1];

  function why(status) {
    if (status === 0) return "There is no connection to Round Pantry.";
    if (status === 401) return "You are signed out.";
    if (status === 403) return "It was refused: you may have signed in anew elsewhere, or it is not yours.";
    if (status === 404 || status === 410) return "What it belongs to is no longer there.";
    if (status === 413) return "It is too much to keep.";
    return `Round Pantry could not do it (${status}).`;
  }

  function show(status, detail, retry, saving) {
    again = retry;
    const what = saving ? "Not saved." : "No answer.";
    words.textContent = `${what} ${detail || why(status)} What you typed is still here.`;
    signIn.hidden = status !== 401 && status !== 403;
    box.hidden = false;
  }

  function hide() { box.hidden = true; again = null; }

  // what the server says in plain words, where it does
  const said = (xhr) => ((xhr.getResponseHeader("Content-Type") || "").startsWith("text/plain") && xhr.status !== 401 ? xhr.responseText : "");

  box.querySelector("[data-send-again]").addEventListener("click", () => { const retry = again; hide(); if (retry) retry(); });
  box.querySelector("[data-not-sent-close]").addEventListener("click", hide);

  // --- what htmx sends
  document.addEventListener("htmx:configRequest", (event) => {
    event.detail.headers["Page-Id"] = pageId;
    // the token may be newer than the page: somebody signed in again in another tab
    if (token()) event.detail.headers["X-CSRFToken"] = token();
    if ("csrfmiddlewaretoken" in event.detail.parameters && token()) event.detail.parameters.csrfmiddlewaretoken = token();
  });
  // What is shown of a bowl or a day is drawn anew with each change: what is sent next is sent for what is shown now.
  function shownVersion(from) {
    const work = document.getElementById("work");
    return work && work.dataset.version && !from.closest(".proposal") ? work.dataset.version : null;
  }
  document.addEventListener("htmx:configRequest", (event) => {
    const version = "version" in event.detail.parameters ? shownVersion(event.detail.elt) : null;
    if (version) event.detail.parameters.version = version;
  });
  function failed(event) {
    const { xhr, elt, requestConfig } = event.detail;
    const saving = requestConfig && requestConfig.verb !== "get" && !elt.matches("[data-preview]");
    const keeps = elt.matches && elt.matches("[data-keeps]");
    const retry = () => (keeps ? htmx.trigger(elt, "again") : elt.isConnected && (elt.matches("form") ? elt.requestSubmit() : elt.click()));
    show(xhr ? xhr.status : 0, xhr ? said(xhr) : "", retry, saving || keeps);
    if (!keeps) return;
    const status = document.querySelector("[data-kept-status]");
    if (status) status.textContent = "Not kept. Trying again …";
    clearTimeout(waiting);
    waiting = setTimeout(() => htmx.trigger(elt, "again"), WAITS[Math.min(failures, WAITS.length - 1)]);
    failures += 1;
  }
  for (const name of ["htmx:responseError", "htmx:sendError", "htmx:timeout"]) document.addEventListener(name, failed);
  document.addEventListener("htmx:afterRequest", (event) => {
    if (event.detail.successful && event.detail.elt.matches && (event.detail.elt.matches("[data-keeps]") || event.detail.requestConfig.verb !== "get")) {
      failures = 0;
      clearTimeout(waiting);
      hide();
    }
  });

  // --- forms that are sent without htmx: by script, so that a failure leaves the page and what was typed as they are
  document.addEventListener("submit", async (event) => {
    const form = event.target, submitter = event.submitter;
    const verb = (submitter && submitter.getAttribute("formmethod")) || form.getAttribute("method") || "get";
    if (event.defaultPrevented || verb.toLowerCase() !== "post" || form.dataset.plain !== undefined) return;
    if (form.hasAttribute("hx-post") && !(submitter && submitter.hasAttribute("hx-disable"))) {
      // drawn a moment ago and not yet taken over by htmx, which would have stopped the event: sent by it all the same
      event.preventDefault();
      htmx.process(form);
      // a form cannot be sent again while it is being sent
      setTimeout(() => form.isConnected && form.requestSubmit(submitter && submitter.isConnected ? submitter : undefined));
      return;
    }
    event.preventDefault();
    if (form.dataset.sending) return;
    form.dataset.sending = "1";
    const data = new FormData(form, submitter);
    if (token()) data.set("csrfmiddlewaretoken", token());
    if (data.has("version") && shownVersion(form)) data.set("version", shownVersion(form));
    const retry = () => form.requestSubmit(submitter && submitter.isConnected ? submitter : undefined);
    try {
      const answer = await fetch(form.getAttribute("action") || window.location.href, { method: "POST", body: data, headers: { "Sent-By": "page", "Page-Id": pageId }, redirect: "manual" });
      const goTo = answer.headers.get("Go-To");
      if (goTo) {
        const there = new URL(goTo, window.location.href);
        if (there.pathname === window.location.pathname && there.search === window.location.search) window.location.reload();
        else window.location.assign(there);
        return;
      }
      const type = answer.headers.get("Content-Type") || "";
      if ((answer.ok || answer.status === 400 || answer.status === 409 || answer.status === 429) && type.startsWith("text/html")) {
        take(await answer.text());
        return;
      }
      show(answer.status, type.startsWith("text/plain") && answer.status !== 401 ? await answer.text() : "", retry, true);
    } catch {
      show(0, "", retry, true);
    } finally {
      delete form.dataset.sending;
    }
  });

  // The page that came as the answer, in place of this one: what stands in its form is what was typed.
  function take(html) {
    const page = new DOMParser().parseFromString(html, "text/html");
    const frame = page.querySelector(".frame");
    if (!frame) { document.body.replaceChildren(...page.body.childNodes); return; }
    document.title = page.title;
    document.querySelector("#main").replaceWith(page.querySelector("#main"));
    const strip = document.querySelector(".strip"), other = page.querySelector(".strip");
    if (strip && other) strip.replaceWith(other);
    htmx.process(document.body);
    rebind();
    const first = document.querySelector("#main [role=alert]:not([hidden]), #main .error");
    if (first) first.scrollIntoView({ block: "center" });
  }

  // the notice stands within what was replaced
  function rebind() {
    const fresh = document.getElementById("not-sent");
    if (fresh !== box) fresh.replaceWith(box);
    hide();
  }
})();
