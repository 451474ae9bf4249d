// After every swap: what stands on drawings, times, values, the focus; and what is said when Pleat does not answer.
import { showSaved, showStored } from "./fields.js";
import { restoreFocus } from "./focus.js";
import { singleKeys, tell } from "./page.js";
import { showOpen } from "./pleats.js";
import { keepShown, restoreRefused } from "./refused.js";

function settle(scope) {
  // A picture is no wider than its height allows: what stands on it is placed by shares of it.
  for (const svg of scope.querySelectorAll(".picture > svg.drawing")) {
    const box = svg.viewBox.baseVal;
    svg.parentElement.style.setProperty("--ratio", String(box.width / box.height));
  }
  for (const el of scope.querySelectorAll("[data-spot-x]")) {
    el.style.left = el.dataset.spotX + "%";
    el.style.top = el.dataset.spotY + "%";
  }
  for (const el of scope.querySelectorAll("[data-wide]")) {
    el.style.width = el.dataset.wide + "%";
    el.style.height = el.dataset.high + "%";
  }
  for (const el of scope.querySelectorAll("time[data-clock]")) {
    el.textContent = new Date(el.dateTime).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
    el.title = new Date(el.dateTime).toLocaleString();
  }
  showOpen();
  restoreRefused();
}

document.addEventListener("htmx:after:swap", (event) => {
  const ctx = event.detail.ctx, taken = !(ctx && ctx.response && ctx.response.status >= 400), form = ctx && ctx.sourceElement && ctx.sourceElement.closest("form");
  if (taken && form) showStored(form);
  if (taken) showSaved();
  keepShown();
  settle(document);
  restoreFocus();
});

document.addEventListener("htmx:error", (event) => {
  const source = event.detail && event.detail.ctx && event.detail.ctx.sourceElement, asks = source && source.id === "behind";
  tell("Pleat does not answer", asks ? "What lies folded may be older than what is open. Is it still running?" : "Your change is not saved. Is it still running? What you typed is still in its field.");
});
document.addEventListener("htmx:response:error", (event) => {
  const status = event.detail.ctx && event.detail.ctx.response && event.detail.ctx.response.status;
  if (status >= 500) tell("That went wrong inside Pleat", "Nothing was changed. What you typed is still in its field.");
});

document.addEventListener("DOMContentLoaded", () => {
  const single = document.getElementById("keys-single");
  if (single) single.checked = singleKeys();
  settle(document);
  const wrong = document.querySelector("[autofocus]");
  if (wrong) { wrong.scrollIntoView({ block: "center" }); wrong.focus({ preventScroll: true }); }
});
