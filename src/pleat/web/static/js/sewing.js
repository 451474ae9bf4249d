// Sewing along: which move is shown, how fast it goes on, and where one left off. The path itself comes with the page.
import { recalled, remember } from "./page.js";

// A tap that waited for the one before is sent with what that one made.
document.addEventListener("htmx:before:request", (event) => {
  const sent = event.detail.ctx, form = sent.sourceElement.closest(".sewing-board");
  if (!form || !sent.request.body) return;
  for (const input of form.querySelectorAll("input[type=hidden]")) sent.request.body.set(input.name, input.value);
});
document.addEventListener("alpine:init", () => {
  Alpine.data("player", () => ({
    at: 0, first: 0, last: 0, number: 0, parts: 1, speed: 1, again: false, playing: false, words: "", done: 0, before: 0, groups: null, lengths: null, frames: 0,
    init() {
      const data = this.$el.dataset;
      this.first = Number(data.first); this.last = Number(data.last); this.number = Number(data.part); this.parts = Number(data.parts);
      this.groups = new Map(); this.lengths = new Map();
      for (const group of this.$el.querySelectorAll("[data-step]")) {
        const step = Number(group.dataset.step);
        if (!this.groups.has(step)) this.groups.set(step, []);
        this.groups.get(step).push(group);
        for (const path of group.querySelectorAll("path")) this.lengths.set(path, path.getTotalLength());
      }
      const kept = this.kept();
      this.at = kept.part === this.number && kept.at >= this.first && kept.at <= this.last ? kept.at : this.first;
      this.speed = kept.speed || 1;
      for (let step = this.first; step <= this.last; step += 1) this.mark(step);
      this.said();
      if (kept.playing) { this.keep(false); this.play(); }
    },
    destroy() { this.playing = false; },
    kept() { return JSON.parse(recalled("sewing-" + this.$el.dataset.book) || "{}"); },
    keep(playing) { remember("sewing-" + this.$root.dataset.book, JSON.stringify({ part: this.number, at: this.at, speed: this.speed, playing })); },
    place() { return this.at + 1; },
    // a step is sewn, being sewn, or still ahead
    mark(step) {
      for (const group of this.groups.get(step) || []) {
        group.classList.toggle("ahead", step > this.at);
        group.classList.toggle("here", step === this.at);
      }
    },
    grow(share) {
      for (const group of this.groups.get(this.at) || []) {
        for (const path of group.querySelectorAll("path")) {
          const length = this.lengths.get(path);
          path.style.strokeDasharray = share < 1 ? length * share + " " + length : "";
        }
      }
    },
    move(to) {
      const was = this.at;
      this.grow(1);
      this.at = Math.min(this.last, Math.max(this.first, to));
      for (let step = Math.min(was, this.at); step <= Math.max(was, this.at); step += 1) this.mark(step);
      this.done = 0;
      this.said();
      this.keep(false);
    },
    said() {
      const list = this.$root.querySelector(".sewing-moves");
      for (const item of list.children) {
        const here = Number(item.dataset.move) === this.at;
        item.classList.toggle("here", here);
        if (here) {
          this.words = item.textContent;
          const top = item.offsetTop;
          if (top < list.scrollTop || top + item.offsetHeight > list.scrollTop + list.clientHeight) list.scrollTop = top - list.clientHeight / 3;
        }
      }
    },
    go(step) { this.playing = false; this.move(step); },
    on() { this.playing = false; if (this.at < this.last) this.move(this.at + 1); else this.part(1); },
    back() { this.playing = false; if (this.at > this.first) this.move(this.at - 1); else this.part(-1); },
    toggle() { if (this.playing) { this.playing = false; this.grow(1); } else this.play(); },
    play() {
      if (this.at >= this.last && !this.again && this.number === this.parts - 1) this.move(this.first);
      this.playing = true; this.before = performance.now(); this.done = 0;
      requestAnimationFrame((now) => this.frame(now));
    },
    frame(now) {
      if (!this.playing || !this.$root.isConnected) return;
      this.done += Math.min(now - this.before, 100) / 1400 * this.speed;
      this.before = now; this.frames += 1;
      this.grow(Math.min(1, this.done / 0.72));
      if (this.done >= 1) this.next();
      if (this.playing) requestAnimationFrame((then) => this.frame(then));
    },
    next() {
      if (this.at < this.last) this.move(this.at + 1);
      else if (this.again) this.move(this.first);
      else if (this.number < this.parts - 1) { this.playing = false; this.part(1, true); }
      else { this.playing = false; this.grow(1); }
    },
    part(by, playing) {
      const to = this.number + by, data = this.$root.dataset;
      if (to < 0 || to >= this.parts) return;
      remember("sewing-" + data.book, JSON.stringify({ part: to, at: by < 0 ? this.first - 1 : this.last + 1, speed: this.speed, playing: Boolean(playing) }));
      htmx.ajax("GET", "/books/" + data.book + "/sewing?part=" + to + "&hand=" + data.hand, { target: "#sewing", swap: "outerHTML" });
    },
    key(event) {
      if (event.target.closest("input, textarea, select") || event.ctrlKey || event.metaKey || event.altKey) return;
      const act = { ArrowRight: "on", PageDown: "on", ArrowLeft: "back", PageUp: "back", " ": "on", p: "toggle", n: "nextPart" }[event.key];
      if (!act || (event.key === " " && event.target.closest("button, a"))) return;
      event.preventDefault(); event.stopPropagation();
      if (act === "nextPart") this.part(1); else this[act]();
    },
    tapped(event) { if (event.target.closest(".sewing-views") && event.isPrimary) this.on(); },
  }));
});
