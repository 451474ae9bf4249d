// The focus stays where the work is.
import { root } from "./page.js";

// What is swapped may take the focused thing away; it comes back to the same thing, else to the notes of its pleat, else to its head.
let before = null;
export function rememberFocus() {
  const el = document.activeElement;
  if (!el || el === document.body) return;
  const pleat = el.closest(".pleat"), named = el.name && el.value && el.type !== "text" ? '[name="' + el.name + '"][value="' + CSS.escape(el.value) + '"]' : "";
  before = { id: el.id, named, form: el.form ? el.form.id : "", pleat: pleat ? pleat.id : "", page: (el.closest("main > div, main") || { id: "" }).id };
}
function usable(el) { return el && el.isConnected && !el.disabled && el.getClientRects().length > 0; }
export function restoreFocus() {
  const now = document.activeElement;
  if (!before || (now && now !== document.body && now.isConnected)) { before = null; return; }
  const pleat = before.pleat && document.getElementById(before.pleat), page = before.page && document.getElementById(before.page);
  const found = [
    before.id && document.getElementById(before.id),
    before.named && (pleat || page || document).querySelector(before.named),
    pleat && pleat.querySelector(".checks:has(.check)"),
    pleat && pleat.querySelector("h2[tabindex]"),
    page && page.querySelector(".stage.now .btn-main:not(:disabled), .stage.now .btn:not(:disabled), .btn-main"),
    root() && document.getElementById("head-" + root().dataset.open),
  ].find(usable);
  before = null;
  if (found) found.focus({ preventScroll: true });
}
