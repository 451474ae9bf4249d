// Fields send what is typed when it changes, and show what the book holds once it was taken.

// A field whose text was taken shows what the book now holds, unless more was typed meanwhile; what others sent is still on its way.
export function showStored(form) {
  for (const input of form.querySelectorAll("input[data-sent]")) {
    if (input.value === input.dataset.sent) input.value = input.getAttribute("value") || "";
    delete input.dataset.sent;
  }
}
// A form that saves as it is changed shows what is stored, but in the field that is being typed in.
export function showSaved() {
  for (const input of document.querySelectorAll("form[data-stored] input:not([type=radio]):not([type=hidden])")) {
    if (input !== document.activeElement) input.value = input.getAttribute("value") || "";
  }
}
document.addEventListener("change", (event) => {
  if (event.target.matches("input[name=value]:not([type=radio])")) event.target.dataset.sent = event.target.value;
});

// What was typed counts, also where it reads as before: a length that is shown rounded may be meant as it stands there.
document.addEventListener("input", (event) => {
  if (event.target.matches("[data-on-change] input[name=value]")) event.target.dataset.edited = "";
});
document.addEventListener("change", (event) => { delete event.target.dataset.edited; }, true);
document.addEventListener("focusout", (event) => {
  if (event.target.dataset && "edited" in event.target.dataset) event.target.dispatchEvent(new Event("change", { bubbles: true }));
});
// Fields send what is typed when it changes; the Enter that ends the typing must not send it again, nor leave the page.
// In a field whose text was refused, Enter tries again.
let changedAt = 0;
document.addEventListener("change", () => { changedAt = performance.now(); }, true);
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("[data-on-change]")) return;
  event.preventDefault();
  const again = form.querySelector("[aria-invalid=true]");
  if (again && performance.now() - changedAt > 60) again.dispatchEvent(new Event("change", { bubbles: true }));
}, true);
document.addEventListener("input", (event) => {
  const handle = event.target.closest && event.target.closest(".handle") && event.target.closest(".handle").querySelector(".handle-grip");
  if (handle) handle.dispatchEvent(new CustomEvent("handle-typed"));
});
