// Copies fonts and scripts from the locked packages into the static folder.
import { copyFileSync, mkdirSync } from "node:fs";

const font =
  "node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next";
mkdirSync("webkit/static/vendor", { recursive: true });
for (const [from, to] of [
  [`${font}-latin-wght-normal.woff2`, "atkinson-latin.woff2"],
  [`${font}-latin-ext-wght-normal.woff2`, "atkinson-latin-ext.woff2"],
  ["node_modules/htmx.org/dist/htmx.min.js", "htmx.min.js"],
  ["node_modules/idiomorph/dist/idiomorph-ext.min.js", "idiomorph-ext.min.js"],
]) {
  copyFileSync(from, `webkit/static/vendor/${to}`);
}
