// What the server cannot do: keys, dragging, printing, and seeing that something did not arrive.
// Every number comes from the server.
import "./sending-htmx.js";
import "./sending-forms.js";
import "./keys.js";
import "./buttons.js";
import "./adding.js";
import "./finder.js";
import "./marks.js";
import "./live.js";
import "./paper.js";
import "./strip.js";
import "./visit.js";
import "./choices.js";
import "./amounts.js";
import "./limits.js";
import "./morph.js";
import "./drag.js";
import "./cook.js";
import "./week.js";
import "./stove.js";
import "./cooking.js";
import "./scale.js";
import "./shop.js";

// From here on the scripts answer for what is clicked and typed. htmx begins with the same event,
// and was told of it first.
const ready = () => {
  document.documentElement.dataset.ready = "1";
};
if (document.readyState === "complete") ready();
else document.addEventListener("DOMContentLoaded", ready);
