// What was sent by a nudge or a drag, and is not answered yet.

// Where something was sent to whose answer is still on its way: the next nudge goes on from there, however long the answer takes.
// Any other change, and a refusal, ends that.
let sent = null, awaited = 0;
const nudging = new WeakSet(); // forms a place was sent by
export const sentTo = (el) => (sent && sent.id === el.id ? sent.to : null);
export const post = (el, text, to) => {
  const input = (document.getElementById("f-" + el.id.replace(/^grip-/, "")) || el.parentElement.querySelector("form")).querySelector("input[name=value]");
  sent = { id: el.id, to, form: input.form };
  awaited += 1;
  nudging.add(input.form);
  input.value = text;
  input.dispatchEvent(new Event("change", { bubbles: true }));
};
document.addEventListener("htmx:before:request", (event) => {
  const ctx = event.detail.ctx, form = ctx.sourceElement.form || ctx.sourceElement;
  ctx.nudge = ctx.request.method === "POST" && nudging.has(form);
  if (sent && ctx.request.method === "POST" && form !== sent.form) sent = null;
});
document.addEventListener("htmx:response:error", () => { sent = null; });
document.addEventListener("htmx:finally:request", (event) => {
  if (!event.detail.ctx.nudge) return;
  awaited = Math.max(0, awaited - 1);
  if (!awaited) sent = null; // what is drawn is what is stored
});
// what a nudge was meant for, which an answer may have put anew since
export const nowOf = (el) => (el.isConnected ? el : document.getElementById(el.id));
