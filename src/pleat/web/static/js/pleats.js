// Which pleat is open, and those that lay folded while the book changed.
import { NAMES, root } from "./page.js";

// Which pleat is open stands on the page itself, for the styles; what is swapped in is told again.
export function showOpen() {
  const main = root();
  if (!main || !main.dataset.open) return;
  for (const name of NAMES) {
    const strip = document.getElementById("strip-" + name);
    if (strip) strip.setAttribute("aria-expanded", String(main.dataset.open === name));
  }
}

// An answer brings their strips; their bodies follow when nothing is asked for a moment, or when one is opened.
let quiet = null;
export function catchUp() {
  clearTimeout(quiet);
  const form = document.getElementById("behind"), names = [...document.querySelectorAll(".strip[data-behind]")].map((strip) => strip.parentElement.dataset.pleat);
  if (!form || !names.length) return;
  form.elements.of.value = names.join(" ");
  form.dispatchEvent(new Event("behind"));
}
document.addEventListener("htmx:after:swap", () => {
  clearTimeout(quiet);
  if (document.querySelector(".strip[data-behind]")) quiet = setTimeout(catchUp, 300);
});
