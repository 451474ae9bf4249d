// A folded structure opened and shut: what the maker asks of it, and what is said. The scene turns and paints it; nothing is worked out here.
import { calm, play } from "./motion.js";
import { Scene } from "./scene.js";

const STEPS = 100, PACE = 1.1; // seconds for a group
document.addEventListener("alpine:init", () => {
  Alpine.data("folding", () => ({
    at: 0, most: STEPS, says: "", playing: false, data: null, done: [], frames: 0, calm: false, scene: null,
    init() {
      this.data = Object.freeze(JSON.parse(this.$el.dataset.folding)); // frozen, so that nobody watches its thousands of numbers
      this.most = STEPS * this.data.groups.length;
      this.done = this.data.groups.map(() => 0);
      this.calm = calm();
      this.scene = new Scene(this.$el.querySelector(".folding-stage"), this.data);
      addEventListener("resize", () => { this.scene.fit(); this.draw(); });
      new MutationObserver(() => this.draw()).observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
      this.set(0);
    },
    destroy() { this.playing = false; },
    // every group is so far done, from 0 to 1
    draw() { this.scene.draw([...this.done]); this.frames += 1; },
    set(at) {
      this.at = Math.min(Math.max(at, 0), this.most);
      this.done = this.data.groups.map((_, n) => Math.min(Math.max(this.at / STEPS - n, 0), 1));
      const state = Math.floor(this.at / STEPS), part = this.at / STEPS - state;
      const names = this.data.groups.map((one) => one.name), end = this.data.opens ? "" : " shut";
      this.says = this.at <= 0 ? (this.data.opens ? "shut" : "open") : part === 0 ? names[state - 1] + end + (this.at >= this.most && end ? ": all is shut" : "") : names[state] + (this.data.opens ? "" : " comes over");
      this.draw();
    },
    slide(event) { this.playing = false; this.set(Number(event.target.value)); },
    shut(group) { return this.done[group] >= 0.5 ? "true" : "false"; },
    // one flap by itself: what lies over it has to be opened first, what comes before it has to be shut first
    flip(event) { this.turn(Number(event.target.dataset.group)); },
    tap(event) {
      let number = this.scene.hit(event.clientX, event.clientY);
      if (number < 0) return;
      while (number >= 0 && !this.data.nodes[number].turns.length) number = this.data.nodes[number].parent;
      if (number < 0) { this.says = "this panel lies still"; return; }
      const groups = this.data.nodes[number].turns.map(([group]) => group);
      const own = groups.filter((group) => this.done[group] >= 0.5);
      this.turn(own.length ? own[own.length - 1] : groups[groups.length - 1]);
    },
    turn(group) {
      const closing = this.done[group] < 0.5, groups = this.data.groups;
      const way = groups[group].over.find((one) => this.done[one] >= 0.5);
      if (way !== undefined) {
        this.says = closing ? groups[way].name + " is shut already, and " + groups[group].name + " goes under it: open that first" : groups[way].name + " lies over " + groups[group].name + ": open that first";
        return;
      }
      this.towards(group, closing ? 1 : 0);
    },
    towards(group, end) {
      const start = this.done[group], name = this.data.groups[group].name;
      play(this, PACE * Math.abs(end - start), (share) => {
        this.done = this.done.map((old, n) => (n === group ? start + (end - start) * share : old));
        this.says = share < 1 ? name + (end ? " comes over" : " opens") : name + (end ? " shut" : " open");
        const count = this.done.filter((one) => one >= 1).length;
        if (share >= 1 && this.done.every((one, n) => (n < count ? one >= 1 : one <= 0))) this.at = count * STEPS;
        this.draw();
      });
    },
    toggle() {
      if (this.playing) { this.playing = false; return; }
      const start = this.at, end = this.at >= this.most ? 0 : this.most;
      play(this, (PACE * Math.abs(end - start)) / STEPS, (share) => this.set(start + (end - start) * share));
    },
    label() { return this.playing ? "stop" : (this.at >= this.most) === this.data.opens ? "shut it" : "open it"; },
  }));
});
