// Making the book: which step fills the screen; what is ticked waits here until it is sent, so that nothing is lost.
import { recalled, remember, tell } from "./page.js";
import { startWait } from "./waits.js";

const AGAIN = 4000, SWIPE = 60;
const ACTS = { ArrowRight: 1, PageDown: 1, " ": 1, ArrowLeft: -1, PageUp: -1 };

document.addEventListener("alpine:init", () => {
  Alpine.data("making", () => ({
    at: 0, done: [], copies: [], waiting: 0, steps: [], queue: [], sending: false, from: null,
    init() {
      this.steps = [...this.$root.querySelectorAll(".making-step")];
      this.queue = JSON.parse(recalled(this.name()) || "[]");
      const marks = new Map(this.queue.map((one) => [one.step, one.done]));
      this.done = this.steps.map((step) => marks.get(step.dataset.key) ?? step.dataset.done === "1");
      const counts = new Map(this.queue.map((one) => [one.step, one.copies]));
      this.copies = this.steps.map((step) => counts.get(step.dataset.key) ?? Number(step.dataset.copies));
      this.at = Number(this.$root.dataset.at);
      this.waiting = this.queue.length;
      this.send();
    },
    name() { return "making-ticks-" + this.$root.dataset.book; },
    show(at) {
      this.steps[this.at].hidden = true;
      this.at = Math.min(this.steps.length - 1, Math.max(0, at));
      const step = this.steps[this.at];
      step.hidden = false;
      document.getElementById("making-number").textContent = this.at + 1;
      history.replaceState(null, "", "?step=" + encodeURIComponent(step.dataset.key));
      scrollTo(0, 0);
    },
    go(by) { this.show(this.at + by); },
    of() { return this.steps.length ? Number(this.steps[this.at].dataset.of) : 1; },
    said() {
      if (this.done[this.at]) return "done ✓";
      return this.of() > 1 ? "copy " + (this.copies[this.at] + 1) + " of " + this.of() : "done";
    },
    // one copy more is done; what is all done is open again
    tick() { this.count(this.done[this.at] ? 0 : this.copies[this.at] + 1); },
    count(copies) {
      const step = this.steps[this.at], done = copies >= this.of();
      this.done[this.at] = done;
      this.copies[this.at] = copies;
      this.queue = [...this.queue.filter((one) => one.step !== step.dataset.key), { step: step.dataset.key, done, copies }];
      this.kept();
      if (done && step.dataset.wait) startWait(step.dataset.title, Number(step.dataset.wait), location.pathname);
      if (done && this.at < this.steps.length - 1) this.go(1);
      this.send();
    },
    kept() { this.waiting = this.queue.length; remember(this.name(), JSON.stringify(this.queue)); },
    // one after the other; what was sent twice is the same, since a tick says how it is and not that it turns
    async send() {
      if (this.sending) return;
      this.sending = true;
      while (this.queue.length) {
        const one = this.queue[0];
        const answer = await this.sent(one);
        if (!answer) { setTimeout(() => this.send(), AGAIN); break; }
        this.queue = answer.status === 404 ? [] : this.queue.filter((other) => other !== one);
        this.kept();
        if (answer.status === 404) { tell("Not sent", "This book is no longer here."); break; }
        const said = await answer.json();
        if (answer.ok) this.take(said);
        else { tell("Not ticked", said.problem); this.look(); }
      }
      this.sending = false;
    },
    // what is done by now, here or in another window; what still waits here is newer
    take(state) {
      const waits = new Set(this.queue.map((one) => one.step));
      this.steps.forEach((step, at) => {
        if (waits.has(step.dataset.key)) return;
        this.done[at] = state.done.includes(step.dataset.key);
        this.copies[at] = this.done[at] ? Number(step.dataset.of) : (state.copies[step.dataset.key] || 0) % Number(step.dataset.of);
      });
    },
    async look() {
      try {
        const answer = await fetch(this.$root.dataset.state);
        if (answer.ok) this.take(await answer.json());
      } catch { /* no connection: it shows what it knows */ }
    },
    async sent(one) {
      const headers = JSON.parse(document.body.getAttribute("hx-headers:inherited"));
      const body = new URLSearchParams({ step: one.step, done: one.done ? "1" : "0", copies: one.copies, window: "making" });
      try {
        const answer = await fetch(this.$root.dataset.tick, { method: "POST", headers, body });
        if (answer.ok || answer.status === 422 || answer.status === 404) return answer;
        if (answer.status < 500) tell("Not sent", "The page is older than the books are now: load it again. What you ticked is kept.");
      } catch { /* no connection: later */ }
      return null;
    },
    key(event) {
      if (event.target.closest("input, textarea, select") || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "Enter" && !event.target.closest("button, a, summary")) { event.preventDefault(); this.tick(); return; }
      const by = ACTS[event.key];
      if (!by || (event.key === " " && event.target.closest("button, a, summary"))) return;
      event.preventDefault(); event.stopImmediatePropagation();
      this.go(by);
    },
    begin(event) { this.from = event.isPrimary && event.pointerType !== "mouse" ? [event.clientX, event.clientY] : null; },
    swiped(event) {
      if (!this.from) return;
      const [x, y] = [event.clientX - this.from[0], event.clientY - this.from[1]];
      this.from = null;
      if (Math.abs(x) > SWIPE && Math.abs(x) > 2 * Math.abs(y)) this.go(x < 0 ? 1 : -1);
    },
  }));
});
