// A page of its own for each test, as a browser would have it.
import { JSDOM } from "jsdom";

let loaded = 0;

// The page, with what scripts find around them; `script` is loaded anew for it.
export async function page(body, ...scripts) {
  const { window } = new JSDOM(`<!doctype html><body data-who="1">${body}</body>`, {
    url: "http://pantry.test/for/1/bowls/2/",
    pretendToBeVisual: true,
  });
  for (const name of ["document", "window", "localStorage", "Event", "CSS"]) {
    Object.defineProperty(globalThis, name, {
      value: name === "window" ? window : (window[name] ?? { escape: (text) => text }),
      configurable: true,
    });
  }
  window.HTMLElement.prototype.scrollIntoView = () => {};
  globalThis.htmx = { triggered: [], trigger: (...said) => globalThis.htmx.triggered.push(said) };
  const modules = [];
  loaded += 1;
  for (const script of scripts) {
    modules.push(await import(`../../static/js/${script}.js?${loaded}`));
  }
  return modules;
}

export const type = (key, field) =>
  field.dispatchEvent(
    new window.KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }),
  );
