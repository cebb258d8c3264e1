// What a line was read as stands beside the line, also where the line takes two rows of the paper,
// or a blank one stands before it.
const paper = document.getElementById("id_text");
const ROW_PX = 32;

// How many rows of the paper each line takes, by a copy of it that nobody sees.
function rowsTaken(lines) {
  const copy = document.createElement("div"),
    style = getComputedStyle(paper);
  copy.className = "paper-copy";
  const sides = parseFloat(style.paddingLeft) + parseFloat(style.paddingRight);
  copy.style.width = `${paper.clientWidth - sides}px`;
  copy.style.font = style.font;
  for (const line of lines) copy.appendChild(document.createElement("p")).textContent = line || " ";
  document.body.append(copy);
  const taken = [...copy.children].map((row) => Math.max(1, Math.round(row.offsetHeight / ROW_PX)));
  copy.remove();
  return taken;
}

function layBeside() {
  const lines = paper.value.split("\n"),
    taken = rowsTaken(lines),
    read = document.querySelectorAll(".line-row");
  paper.rows = Math.max(14, taken.reduce((sum, one) => sum + one, 0) + 1);
  let at = 0;
  for (const row of read) {
    const text = row.querySelector("[name^=line-]").value.trim();
    const there = lines.findIndex((line, index) => index >= at && line.trim() === text);
    const skipped = there < 0 ? 0 : taken.slice(at, there).reduce((sum, one) => sum + one, 0);
    row.style.setProperty("--skipped", skipped);
    row.style.setProperty("--taken", there < 0 ? 1 : taken[there]);
    if (there >= 0) at = there + 1;
  }
}

if (paper?.closest("#recipe")) {
  layBeside();
  paper.addEventListener("input", layBeside);
  new ResizeObserver(layBeside).observe(paper.parentElement);
  document.addEventListener("htmx:afterSettle", layBeside);
}
