// What is moved on a drawing: a place along its axis, and a thing on its face; dragged, or with the arrow keys.
(function () {
  "use strict";
  // a length while it is dragged, on the maker's ruler
  function onRuler(mm, ruler) {
    if (ruler === "mm") return String(Math.round(mm * 2) / 2);
    let steps = Math.round(mm / 25.4 * 16), whole = Math.floor(steps / 16), top = steps % 16, bottom = 16;
    while (top && top % 2 === 0) { top /= 2; bottom /= 2; }
    return top ? (whole ? whole + " " : "") + top + "/" + bottom : String(whole);
  }

  // Where something was sent to whose answer is still on its way: the next nudge goes on from there, however long the answer takes.
  // Any other change, and a refusal, ends that.
  let sent = null, awaited = 0;
  const nudging = new WeakSet(); // forms a place was sent by
  const sentTo = (el) => (sent && sent.id === el.id ? sent.to : null);
  const post = (el, text, to) => {
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
  const nowOf = (el) => (el.isConnected ? el : document.getElementById(el.id));

  document.addEventListener("alpine:init", () => {
    // A place on a drawing: drag it along its axis, or focus it and use the arrow keys (with Shift, ten marks at a time).
    Alpine.data("handle", () => ({
      from: null,
      at: null,
      timer: null,
      along(event) { return this.$el.dataset.axis === "y" ? event.clientY : event.clientX; },
      shift(el, by) { el.parentElement.style[el.dataset.axis === "y" ? "marginTop" : "marginLeft"] = by; },
      mm(el) { return this.at ?? sentTo(el) ?? Number(el.dataset.mm); },
      clamp(el, mm) {
        const step = Number(el.dataset.step), snapped = Math.round(mm / step) * step;
        return Math.min(Math.max(snapped, Number(el.dataset.low)), Number(el.dataset.high));
      },
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

    // A thing on its face, moved both ways; its edges catch those of the face and its middle. A tap looks at it.
    Alpine.data("placed", () => ({
      from: null,
      at: null,
      timer: null,
      px(el) { return Number(el.dataset.scale) * el.closest(".picture").querySelector("svg").getBoundingClientRect().width / Number(el.dataset.width); },
      here(el) { return { x: Number(el.dataset.x), y: Number(el.dataset.y) }; },
      snap(el, mm, axis) {
        const step = Number(el.dataset.step), size = el.getBoundingClientRect()[axis === "x" ? "width" : "height"] / this.px(el);
        const far = Number(el.dataset[axis === "x" ? "farX" : "farY"]);
        const border = 6, ends = [0, border, (far - size) / 2, far - size - border, far - size];
        for (const one of document.querySelectorAll(".placed-grip")) { // edges of what else lies there
          if (one === el || one.dataset.face !== el.dataset.face) continue;
          const at = Number(one.dataset[axis]), long = Number(one.dataset[axis === "x" ? "thingWide" : "thingHigh"]);
          ends.push(at, at + long, at - size, at + long - size);
        }
        const near = ends.reduce((best, to) => Math.abs(mm - to) < Math.abs(mm - best) ? to : best);
        if (Math.abs(mm - near) < 2.5) return near;
        return Math.round(mm / step) * step;
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
})();
