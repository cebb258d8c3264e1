// How tall the strip is: what stays in sight or is scrolled to stands below it.
const overhead = document.querySelector(".overhead");
if (overhead)
  new ResizeObserver(() =>
    document.documentElement.style.setProperty("--overhead", `${overhead.offsetHeight}px`),
  ).observe(overhead);

// What was opened stays open when it is drawn anew.
const opened = new Set();
document.addEventListener(
  "toggle",
  (event) => {
    const name = event.target.dataset?.keepOpen;
    if (name && event.target.isConnected) opened[event.target.open ? "add" : "delete"](name);
  },
  true,
);
// The other targets are reckoned anew only while they are open, and once when they are opened.
let othersAreOld = false;
document.addEventListener("htmx:configRequest", (event) => {
  if (opened.has("strip") || !document.querySelector("#strip-others details"))
    event.detail.headers["Strip-Open"] = "1";
});
document.addEventListener("htmx:afterSwap", () => {
  othersAreOld = !opened.has("strip");
});
document.addEventListener(
  "toggle",
  (event) => {
    if (!othersAreOld || !opened.has("strip") || event.target.dataset.keepOpen !== "strip") return;
    othersAreOld = false;
    if (document.getElementById("recipe")) htmx.trigger("#recipe", "settled");
    else htmx.ajax("GET", window.location.pathname, { target: "#work" });
  },
  true,
);
document.addEventListener("htmx:afterSettle", () => {
  for (const name of opened)
    document.querySelectorAll(`[data-keep-open="${name}"]`).forEach((details) => {
      details.open = true;
    });
});

// What lies over the page is closed with Escape, and by a click beside it.
const OVER =
  "details.lesser[open], details.reading[open], details.strip-rest[open], .aside-form[open]";
const close = (all) =>
  all.forEach((one) => {
    one.open = false;
  });
document.addEventListener("keydown", (event) => {
  if (event.key !== "Escape" || event.defaultPrevented || document.querySelector("dialog[open]"))
    return;
  const all = [...document.querySelectorAll(OVER)];
  if (!all.length) return;
  const inside = all.find((one) => one.contains(document.activeElement));
  close(all);
  inside?.querySelector("summary").focus({ preventScroll: true });
});
document.addEventListener("click", (event) => {
  close(
    [...document.querySelectorAll(OVER)].filter(
      (one) => !one.contains(event.target) && !one.matches(".aside-form"),
    ),
  );
});
