// A thing on its face, moved both ways: dragged, or with the arrow keys.
import { nowOf, post, sentTo } from "./nudges.js";
import { caught } from "./snapping.js";

document.addEventListener("alpine:init", () => {
  // A thing on its face, moved both ways; its edges catch those of the face and its middle. A tap looks at it.
  Alpine.data("placed", () => ({
    from: null,
    at: null,
    timer: null,
    px(el) { return Number(el.dataset.scale) * el.closest(".picture").querySelector("svg").getBoundingClientRect().width / Number(el.dataset.width); },
    here(el) { return { x: Number(el.dataset.x), y: Number(el.dataset.y) }; },
    snap(el, mm, axis) {
      const side = axis === "x" ? "width" : "height", long = axis === "x" ? "thingWide" : "thingHigh", far = Number(el.dataset[axis === "x" ? "farX" : "farY"]);
      const beside = [...document.querySelectorAll(".placed-grip")].filter((grip) => grip !== el && grip.dataset.face === el.dataset.face);
      const others = beside.map((grip) => [Number(grip.dataset[axis]), Number(grip.dataset[axis]) + Number(grip.dataset[long])]);
      return caught(mm, el.getBoundingClientRect()[side] / this.px(el), far, others, Number(el.dataset.step));
    },
    show(el, to) {
      const now = this.here(el), px = this.px(el);
      el.style.transform = `translate(${(to.x - now.x) * px}px, ${(to.y - now.y) * px}px)`;
    },
    grab(event) {
      if (event.button > 0) return;
      this.$el.setPointerCapture(event.pointerId);
      this.from = { x: event.clientX, y: event.clientY };
      this.at = null;
    },
    drag(event) {
      if (this.from === null) return;
      const el = this.$el, now = this.here(el), px = this.px(el), dx = event.clientX - this.from.x, dy = event.clientY - this.from.y;
      if (this.at === null && Math.hypot(dx, dy) < 4) return;
      this.at = { x: this.snap(el, now.x + dx / px, "x"), y: this.snap(el, now.y + dy / px, "y") };
      this.show(el, this.at);
    },
    drop() {
      if (this.from === null) return;
      this.from = null;
      if (this.at) this.send(this.$el); else htmx.ajax("GET", this.$el.dataset.look, { swap: "none" });
    },
    nudge(event) {
      const el = this.$el, way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (event.key === "Enter" || event.key === " ") { event.preventDefault(); htmx.ajax("GET", el.dataset.look, { swap: "none" }); return; }
      if (!way) return;
      event.preventDefault();
      event.stopPropagation();
      const by = Number(el.dataset.step) * (event.shiftKey ? 10 : 1), now = this.at || sentTo(el) || this.here(el);
      this.at = { x: now.x + way[0] * by, y: now.y + way[1] * by };
      this.show(el, this.at);
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.send(el), 350);
    },
    send(from) {
      const to = this.at, el = nowOf(from);
      this.at = null;
      if (el) post(el, to.x.toFixed(3) + " mm; " + to.y.toFixed(3) + " mm", to);
    },
  }));
});
