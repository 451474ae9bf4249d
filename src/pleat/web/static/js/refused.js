// What could not be taken stays in its field whatever is swapped, shows on the folded strip, and comes back after a reload of the page.
import { rememberFocus } from "./focus.js";
import { recalled, remember, root } from "./page.js";

// A fraction stands twice in the page, drawn and to be read aloud; kept as it is read aloud.
function said(note) {
  const copy = note.cloneNode(true);
  for (const drawn of copy.querySelectorAll("[aria-hidden]")) drawn.remove();
  return copy.textContent.replace(/\s+/g, " ").trim();
}
const refusedKey = () => "pleat-refused-" + (root() ? root().dataset.book : "");
const refusedOnes = () => JSON.parse(recalled(refusedKey(), "sessionStorage") || "{}");
function noteRefused(input, message) {
  if (!root() || !root().dataset.book || !input.id) return;
  const all = refusedOnes();
  if (message) all[input.id] = { value: input.value, message };
  else delete all[input.id];
  remember(refusedKey(), JSON.stringify(all), "sessionStorage");
}
export function restoreRefused() {
  if (!root() || !root().dataset.book) return;
  for (const [id, one] of Object.entries(refusedOnes())) {
    const input = document.getElementById(id);
    if (!input || !input.form || input.form.hasAttribute("hx-morph-skip")) continue;
    input.value = one.value;
    input.setAttribute("aria-invalid", "true");
    input.form.setAttribute("hx-morph-skip", "");
    const note = input.form.querySelector(".field-note");
    if (note) note.textContent = one.message;
  }
  for (const pleat of document.querySelectorAll(".pleat")) pleat.toggleAttribute("data-refused", Boolean(pleat.querySelector("[aria-invalid=true]")));
}

// What is refused on the page now is kept for a reload.
export function keepShown() {
  for (const input of document.querySelectorAll(".pleat input[aria-invalid=true], .bar input[aria-invalid=true]")) {
    const note = input.form.querySelector(".field-note");
    if (note && note.textContent.trim()) noteRefused(input, said(note));
  }
}

// What could not be taken stays in its field, whatever else is swapped around it.
document.addEventListener("htmx:before:swap", (event) => {
  rememberFocus();
  const ctx = event.detail.ctx, form = ctx && ctx.sourceElement && ctx.sourceElement.closest && ctx.sourceElement.closest("form.field");
  if (!form) return;
  const input = form.querySelector("input[name=value], input[data-typed]");
  const failed = ctx.response && ctx.response.status === 422;
  form.toggleAttribute("hx-morph-skip", failed);
  if (input) input.toggleAttribute("aria-invalid", failed);
  if (input && failed) input.setAttribute("aria-invalid", "true");
  if (input && !failed) noteRefused(input, "");
});
