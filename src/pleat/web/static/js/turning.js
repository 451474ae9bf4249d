// A book turned round its ring, from its end. The page brings the frames from shut to flat open; they are blended, and mirrored for the other half.
import { calm, play } from "./motion.js";

const PACE = 5.2, SVG = "http://www.w3.org/2000/svg";
const make = (name, css, parent) => { const one = document.createElementNS(SVG, name); one.setAttribute("class", css); parent.append(one); return one; };
document.addEventListener("alpine:init", () => {
  Alpine.data("turning", () => ({
    at: 0, says: "", binds: false, playing: false, frames: 0, data: null, parts: null, calm: false,
    init() {
      this.data = JSON.parse(this.$el.dataset.turning);
      this.calm = calm();
      const { ring, long } = this.data, half = ring.radius + ring.wire + ring.hole + long, svg = this.$el.querySelector("svg");
      svg.setAttribute("viewBox", [-half, -half, 2 * half, 2 * half].join(" "));
      for (const [css, r] of [["ring-wire", ring.radius + ring.wire], ["ring-inside", ring.radius]]) make("circle", css, svg).setAttribute("r", r);
      this.parts = ["stack filled", "stack turned-stack filled"].map((css) => [make("path", css, svg), make("path", css, svg), make("path", "stack-cover", svg)]);
      if (this.data.cover) this.parts.forEach((one) => { one[2].style.strokeWidth = Math.max(this.data.cover, 0.35); });
      else this.parts.forEach((one) => one[2].remove());
      this.first = this.data.frames.find((one) => one.binds);
      this.set(this.first ? this.first.angle : 0);
    },
    destroy() { this.playing = false; },
    set(at) {
      this.at = Math.min(Math.max(at, 0), 360);
      const over = this.at > 180, angle = over ? 360 - this.at : this.at, all = this.data.frames, step = all[1].angle - all[0].angle;
      const number = Math.min(Math.floor(angle / step), all.length - 2), part = angle / step - number, one = all[number], next = all[number + 1];
      const blend = (a, b) => a.map((pair, i) => [pair[0] + part * (b[i][0] - pair[0]), pair[1] + part * (b[i][1] - pair[1])]);
      this.draw(this.parts[0], blend(one.stays, next.stays), 0, over, 0);
      this.draw(this.parts[1], blend(one.turns, next.turns), (angle * Math.PI) / 180, over, this.data.frames[0].turns.length - 1);
      this.binds = (part < 0.5 ? one : next).binds;
      const where = this.at < 2 ? "shut" : Math.abs(this.at - 180) < 2 ? "flat open" : this.at > 358 ? "right round" : "turned to " + Math.round(this.at) + "°";
      this.says = this.binds ? where + ": it binds here, the pages do not fit round the ring" : where;
      this.frames += 1;
    },
    // a part as two blocks, inside the ring and beyond the hole; its outermost sheet is the cover
    draw(paths, sheets, turn, over, outer) {
      const { ring, long } = this.data, cos = Math.cos(turn), sin = Math.sin(turn);
      const point = (across, off) => { const x = -off * sin + across * cos, y = off * cos + across * sin; return x.toFixed(2) + " " + (over ? y : -y).toFixed(2); };
      [[-ring.bridge, 0], [ring.hole, ring.hole + long]].forEach(([from, to], place) => {
        const near = sheets.map((one) => point(one[1] + from, one[0])), far = sheets.map((one) => point(one[1] + to, one[0])).toReversed();
        paths[place].setAttribute("d", "M" + near.concat(far).join("L") + "Z");
      });
      const last = sheets[outer];
      paths[2].setAttribute("d", "M" + point(last[1] + ring.hole, last[0]) + "L" + point(last[1] + ring.hole + long, last[0]) + "M" + point(last[1] - ring.bridge, last[0]) + "L" + point(last[1], last[0]));
    },
    slide(event) { this.playing = false; this.set(Number(event.target.value)); },
    label() { return this.playing ? "stop" : this.at >= 360 ? "turn it back" : "turn it"; },
    toggle() {
      if (this.playing) { this.playing = false; return; }
      const start = this.at, end = start >= 360 ? 0 : 360;
      play(this, (Math.abs(end - start) / 360) * PACE, (share) => this.set(start + (end - start) * share));
    },
  }));
});
