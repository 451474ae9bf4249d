// A folded structure turned about its folds: nested elements, one a panel. The page brings the tree, the angles and the lifts; nothing is worked out here.
(function () {
  "use strict";
  const STEPS = 100, SECOND = 1000, PACE = 1.1;
  const ease = (t) => t * t * (3 - 2 * t);
  document.addEventListener("alpine:init", () => {
    Alpine.data("folding", () => ({
      at: 0, most: STEPS, says: "", playing: false, data: null, parts: null, done: [], frames: 0, calm: false,
      init() {
        this.data = JSON.parse(this.$el.dataset.folding);
        this.most = STEPS * this.data.groups.length;
        this.done = this.data.groups.map(() => 0);
        this.calm = matchMedia("(prefers-reduced-motion: reduce)").matches;
        this.build();
        addEventListener("resize", () => this.fit());
        this.set(0);
      },
      destroy() { this.playing = false; },
      build() {
        const stage = this.$el.querySelector(".moving-stage"), world = document.createElement("div");
        world.className = "moving-world";
        stage.replaceChildren(world);
        this.world = world; this.parts = [];
        this.data.nodes.forEach((one, number) => {
          const own = document.createElement("div"), parent = one.parent < 0 ? world : this.parts[one.parent].own;
          own.className = "moving-panel folding-panel";
          const xs = one.outline.map((p) => p[0]), ys = one.outline.map((p) => p[1]);
          const left = Math.min(...xs), top = Math.min(...ys), wide = Math.max(...xs) - left, high = Math.max(...ys) - top;
          const shape = one.outline.length === 4 && wide * high - this.area(one.outline) < 0.5 ? "" : "polygon(" + one.outline.map((p) => p[0] - left + "px " + (p[1] - top) + "px").join(",") + ")";
          for (const side of one.paper ? ["inside"] : ["inside", "outside"]) {
            const face = document.createElement("div");
            face.className = "moving-face moving-" + side + " paint-" + one.paint + (one.paper ? " folding-paper" : "");
            face.style.left = left + "px"; face.style.top = top + "px"; face.style.width = wide + "px"; face.style.height = high + "px";
            face.style.clipPath = shape;
            if (!one.paper) face.dataset.node = number;
            own.append(face);
          }
          parent.append(own);
          this.parts.push({ own, one, last: "" });
        });
        this.fit();
      },
      area(outline) {
        return Math.abs(outline.reduce((sum, p, n) => { const q = outline[(n + 1) % outline.length]; return sum + p[0] * q[1] - q[0] * p[1]; }, 0)) / 2;
      },
      // the open thing is the widest: it has to stay on the stage, with room for panels that stand up
      fit() {
        const stage = this.world.parentElement, points = this.spread();
        const xs = points.map((p) => p[0]), ys = points.map((p) => p[1]);
        const left = Math.min(...xs), right = Math.max(...xs), top = Math.min(...ys), bottom = Math.max(...ys);
        const tall = Math.max(...this.data.nodes.filter((one) => one.turns.length).map((one) => Math.min(this.reach(one), 260)), 0) * 0.5;
        const scale = Math.min(stage.clientWidth / (right - left) / 1.12, stage.clientHeight / ((bottom - top) * 0.74 + tall) / 1.14);
        this.world.style.transform = "translate(" + stage.clientWidth / 2 + "px," + (stage.clientHeight / 2 + tall * scale * 0.4) + "px) rotateX(44deg) rotateZ(-6deg) scale3d(" + scale + "," + scale + "," + scale + ") translate(" + -(left + right) / 2 + "px," + -(top + bottom) / 2 + "px)";
      },
      reach(one) { const xs = one.outline.map((p) => p[0]), ys = one.outline.map((p) => p[1]); return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)); },
      // where the corners of all panels lie in the first state and in the last: pieces are laid by their places, folds that are made are turned
      spread() {
        const points = [];
        for (const done of [0, 1]) {
          const at = [];
          this.data.nodes.forEach((one) => {
            const matrix = new DOMMatrix(one.parent < 0 ? undefined : at[one.parent].toFloat64Array());
            matrix.multiplySelf(this.matrix(one, one.turns.reduce((sum, turn) => sum + done * turn[1], one.angle), [0, 0, 0]));
            at.push(matrix);
            one.outline.forEach((p) => { const q = matrix.transformPoint(new DOMPoint(p[0], p[1])); points.push([q.x, q.y]); });
          });
        }
        return points;
      },
      matrix(one, angle, lift) {
        const p = one.place, m = new DOMMatrix();
        m.translateSelf(lift[0], lift[1], lift[2]);
        m.multiplySelf(new DOMMatrix([p[0], p[1], p[2], 0, p[3], p[4], p[5], 0, p[6], p[7], p[8], 0, p[9], p[10], p[11], 1]));
        if (one.line && angle) {
          const [a, b] = one.line;
          m.translateSelf(a[0], a[1], 0);
          m.rotateAxisAngleSelf(b[0] - a[0], b[1] - a[1], 0, angle);
          m.translateSelf(-a[0], -a[1], 0);
        }
        return m;
      },
      // every group is so far done, from 0 to 1
      draw() {
        const shares = this.done, groups = shares.length;
        let state = 0;
        while (state < groups && shares[state] >= 1) state += 1;
        const part = state < groups ? shares[state] : 0;
        const ahead = shares.some((share, n) => n > state && share > 0);
        for (const each of this.parts) {
          const { own, one } = each;
          let angle = one.angle;
          for (const [group, degrees] of one.turns) angle += ease(shares[group]) * degrees;
          const from = one.lifts[state], to = one.lifts[Math.min(state + 1, groups)], last = one.lifts[groups];
          // where groups are done out of turn, what is done lies as it will when all is shut
          const turned = one.turns.length ? Math.max(...one.turns.map(([group]) => shares[group])) : part;
          // what lies still goes up or down by a hair at half way, so that it need not be drawn anew in every picture
          const share = one.turns.some(([group]) => group === state) ? part : part < 0.5 ? 0 : 1;
          const lift = ahead ? from.map((value, n) => value + turned * (last[n] - value)) : from.map((value, n) => value + share * (to[n] - value));
          const now = angle + "/" + lift;
          if (now === each.last) continue;
          each.last = now;
          own.style.transform = this.matrix(one, angle, lift).toString();
        }
        this.frames += 1;
      },
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
        const face = event.target.closest("[data-node]");
        if (!face) return;
        let number = Number(face.dataset.node);
        while (number >= 0 && !this.data.nodes[number].turns.length) number = this.data.nodes[number].parent;
        if (number < 0) { this.says = "this panel lies still"; return; }
        const groups = this.data.nodes[number].turns.map(([group]) => group);
        const own = groups.filter((group) => this.done[group] >= 0.5);
        this.turn(own.length ? own[own.length - 1] : groups[groups.length - 1]);
      },
      turn(group) {
        const closing = this.done[group] < 0.5, groups = this.data.groups;
        const way = closing
          ? groups[group].over.find((one) => this.done[one] >= 0.5)
          : groups[group].over.find((one) => this.done[one] >= 0.5);
        if (way !== undefined && way >= 0) {
          this.says = closing ? groups[way].name + " is shut already, and " + groups[group].name + " goes under it: open that first" : groups[way].name + " lies over " + groups[group].name + ": open that first";
          return;
        }
        this.towards(group, closing ? 1 : 0);
      },
      towards(group, end) {
        const start = this.done[group], name = this.data.groups[group].name;
        this.animate(Math.abs(end - start), (share) => {
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
        this.animate(Math.abs(end - start) / STEPS, (share) => this.set(start + (end - start) * share));
      },
      label() { return this.playing ? "stop" : (this.at >= this.most) === this.data.opens ? "shut it" : "open it"; },
      animate(units, step) {
        if (this.calm || !units) { step(1); return; }
        this.playing = true;
        const began = performance.now(), long = units * PACE * SECOND;
        const frame = (now) => {
          if (!this.playing) return;
          const share = Math.min(Math.max(now - began, 0) / long, 1);
          step(share);
          if (share < 1) requestAnimationFrame(frame); else this.playing = false;
        };
        requestAnimationFrame(frame);
      },
    }));
  });
})();
