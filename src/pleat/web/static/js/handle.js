// A place on a drawing, moved along its axis: dragged, or with the arrow keys.
import { nowOf, post, sentTo } from "./nudges.js";
import { onRuler } from "./ruler.js";
import { onMark } from "./snapping.js";

document.addEventListener("alpine:init", () => {
  // A place on a drawing: drag it along its axis, or focus it and use the arrow keys (with Shift, ten marks at a time).
  Alpine.data("handle", () => ({
    from: null,
    at: null,
    timer: null,
    along(event) { return this.$el.dataset.axis === "y" ? event.clientY : event.clientX; },
    shift(el, by) { el.parentElement.style[el.dataset.axis === "y" ? "marginTop" : "marginLeft"] = by; },
    mm(el) { return this.at ?? sentTo(el) ?? Number(el.dataset.mm); },
    clamp(el, mm) { return onMark(mm, Number(el.dataset.step), Number(el.dataset.low), Number(el.dataset.high)); },
    show(el, mm) {
      const picture = el.closest(".picture"), shown = picture.querySelector("svg").getBoundingClientRect().width / Number(el.dataset.width);
      this.shift(el, (mm - Number(el.dataset.mm)) * Number(el.dataset.scale) * shown + "px");
      const text = onRuler(mm, el.dataset.ruler);
      el.setAttribute("aria-valuenow", mm.toFixed(3));
      el.setAttribute("aria-valuetext", text + " " + el.dataset.ruler);
      const input = el.parentElement.querySelector("input[name=value]");
      if (input) input.value = text;
    },
    grab(event) {
      if (this.$el.getAttribute("aria-disabled") === "true" || event.button > 0) return;
      this.$el.setPointerCapture(event.pointerId);
      this.from = this.along(event);
      this.at = Number(this.$el.dataset.mm);
    },
    drag(event) {
      if (this.from === null) return;
      const el = this.$el, shown = el.closest(".picture").querySelector("svg").getBoundingClientRect().width / Number(el.dataset.width);
      this.at = this.clamp(el, Number(el.dataset.mm) + (this.along(event) - this.from) / shown / Number(el.dataset.scale));
      this.show(el, this.at);
    },
    drop() {
      if (this.from === null) return;
      this.from = null;
      this.send(this.$el);
    },
    nudge(event) {
      const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
      if (!way) return;
      event.preventDefault();
      event.stopPropagation();
      const el = this.$el;
      if (el.getAttribute("aria-disabled") === "true") return;
      this.at = this.clamp(el, this.mm(el) + way * Number(el.dataset.step) * (event.shiftKey ? 10 : 1));
      this.show(el, this.at);
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.send(el), 350);
    },
    // What is typed into its field goes before a nudge that is still on its way.
    typed() {
      clearTimeout(this.timer);
      this.at = null;
      this.shift(this.$el, "");
    },
    send(from) {
      const mm = this.at, el = nowOf(from);
      this.at = null;
      if (!el) return;
      this.shift(el, "");
      if (mm === null || (Math.abs(mm - Number(el.dataset.mm)) < 0.001 && sentTo(el) === null)) { this.show(el, Number(el.dataset.mm)); return; }
      post(el, mm.toFixed(4) + " mm", mm);
    },
  }));
});
