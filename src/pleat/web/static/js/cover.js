// A cover turned about its hinges: nested elements, one a panel. The page brings the tree, the angles and the lifts; angles are blended, nothing is worked out.
import { calm, play } from "./motion.js";

const STEPS = 100, PACE = 1.1; // seconds from one state to the next
document.addEventListener("alpine:init", () => {
  Alpine.data("moving", () => ({
    at: 0, most: STEPS, says: "", playing: false, way: 1, data: null, parts: null, frames: 0, calm: false,
    init() {
      this.data = JSON.parse(this.$el.dataset.cover);
      this.most = STEPS * (this.data.names.length - 1);
      this.calm = calm();
      this.build();
      addEventListener("resize", () => this.fit());
      this.set(this.most / 2);
    },
    destroy() { this.playing = false; },
    build() {
      const stage = this.$el.querySelector(".moving-stage"), world = document.createElement("div");
      world.className = "moving-world";
      stage.replaceChildren(world);
      this.world = world; this.parts = [];
      const points = this.data.panels.flatMap((one) => one.outline);
      const xs = points.map((p) => p[0]), ys = points.map((p) => p[1]);
      this.box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
      for (const one of this.data.panels) {
        const own = document.createElement("div"), parent = one.parent < 0 ? world : this.parts[one.parent].own;
        own.className = "moving-panel";
        const left = Math.min(...one.outline.map((p) => p[0])), top = Math.min(...one.outline.map((p) => p[1]));
        const wide = Math.max(...one.outline.map((p) => p[0])) - left, high = Math.max(...one.outline.map((p) => p[1])) - top;
        const from = one.parent < 0 ? { left: 0, top: 0 } : this.parts[one.parent];
        own.style.left = left - from.left + "px"; own.style.top = top - from.top + "px"; own.style.width = wide + "px"; own.style.height = high + "px";
        const after = one.axis === "Y" ? left + wide / 2 > one.hinge : top + high / 2 > one.hinge;
        if (one.axis) own.style.transformOrigin = one.axis === "Y" ? one.hinge - left + "px 50%" : "50% " + (one.hinge - top) + "px";
        const shape = "polygon(" + one.outline.map((p) => p[0] - left + "px " + (p[1] - top) + "px").join(",") + ")";
        for (const side of ["inside", "outside"]) {
          const face = document.createElement("div");
          face.className = "moving-face moving-" + side + " paint-" + this.data.swatch;
          face.style.clipPath = shape;
          own.append(face);
        }
        if (one.board) own.append(this.slab(0, 0, wide, high, one.board, "moving-board"));
        parent.append(own);
        // a panel right of or above its hinge turns the other way round the same axis
        this.parts.push({ own, left, top, axis: one.axis, sign: one.axis === "Y" ? (after ? -1 : 1) : after ? 1 : -1, angles: one.angles, lifts: one.lifts });
      }
      const block = this.data.block, base = this.parts[0];
      this.block = this.slab(block.x - base.left, block.y - base.top, block.width, block.height, block.thick, "moving-leaves paint-" + this.data.paper);
      this.block.style.transform = "translateZ(" + (this.data.panels[0].board + 0.3) + "px)";
      base.own.append(this.block);
      this.fit();
    },
    // a box lying on its panel: its top and four edges
    slab(x, y, wide, high, thick, paint) {
      const box = document.createElement("div");
      box.className = "moving-slab"; box.style.left = x + "px"; box.style.top = y + "px"; box.style.width = wide + "px"; box.style.height = high + "px";
      const sides = [
        [wide, high, "translateZ(" + thick + "px)"],
        [wide, thick, "rotateX(90deg)"], [wide, thick, "translateY(" + high + "px) rotateX(90deg)"],
        [thick, high, "rotateY(-90deg)"], [thick, high, "translateX(" + wide + "px) rotateY(-90deg)"],
      ];
      sides.forEach((side, place) => {
        const face = document.createElement("div");
        face.className = "moving-side " + paint + (place ? " moving-edge" : "");
        face.style.width = side[0] + "px"; face.style.height = side[1] + "px"; face.style.transform = side[2];
        box.append(face);
      });
      return box;
    },
    fit() {
      const stage = this.world.parentElement, [left, top, right, bottom] = this.box;
      const scale = Math.min(stage.clientWidth / (right - left) / 1.3, stage.clientHeight / ((bottom - top) * 0.75 + this.standing()) / 1.02);
      this.world.style.transform = "translate(" + stage.clientWidth / 2 + "px," + stage.clientHeight * 0.68 + "px) rotateX(48deg) rotateZ(-8deg) scale3d(" + scale + "," + scale + "," + scale + ") translate(" + -(left + right) / 2 + "px," + -(top + bottom) / 2 + "px)";
    },
    // how high the widest panel that turns stands up when it is half way
    standing() {
      return Math.max(...this.parts.map((one) => (one.axis ? (one.axis === "Y" ? one.own.offsetWidth : one.own.offsetHeight) : 0))) * 0.9;
    },
    set(at) {
      this.at = Math.min(Math.max(at, 0), this.most);
      const state = Math.min(Math.floor(this.at / STEPS), this.data.names.length - 2), part = this.at / STEPS - state;
      for (const one of this.parts) {
        if (!one.axis) continue;
        const angle = one.angles[state] + part * (one.angles[state + 1] - one.angles[state]), lift = one.lifts[state] + part * (one.lifts[state + 1] - one.lifts[state]);
        one.own.style.transform = "translateZ(" + lift + "px) rotate" + one.axis + "(" + one.sign * angle + "deg)";
      }
      this.block.classList.toggle("moving-away", this.at / STEPS < this.data.block.after - 0.5);
      const names = this.data.names;
      this.says = part < 0.02 ? names[state] : part > 0.98 ? names[state + 1] : "between “" + names[state] + "” and “" + names[state + 1] + "”";
      this.frames += 1;
    },
    slide(event) { this.playing = false; this.set(Number(event.target.value)); },
    go(event) { this.playing = false; this.towards(STEPS * Number(event.target.dataset.state)); },
    toggle() {
      if (this.playing) { this.playing = false; return; }
      this.towards(this.at >= this.most ? 0 : this.most);
    },
    label() { return this.playing ? "stop" : this.at >= this.most ? "open it" : "shut it"; },
    towards(end) {
      const start = this.at;
      play(this, (Math.abs(end - start) / STEPS) * PACE, (share) => this.set(start + (end - start) * share));
    },
  }));
});
