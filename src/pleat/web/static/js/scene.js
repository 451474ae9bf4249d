// A folded structure in space: its panels turned about their folds by the tree, the angles and the lifts that the page brings, and painted the farthest first.
import { HERE, about, after, moved, shifted } from "./poses.js";
import { holds, ordered, seen } from "./solid.js";

const FAR = 2600, EYE = [0.5, 0.4], LEANS = 44, SPUN = -6, ROOM = 12, DIM = 0.16;
const ease = (t) => t * t * (3 - 2 * t);
// the inside of a sheet is paler than its outside
const pale = (rgb) => { const grey = (0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]) * 0.3; return rgb.map((one) => Math.min(255, 1.14 * (0.7 * one + grey))); };
function bounds(points) {
  const found = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) { found[0] = Math.min(found[0], x); found[1] = Math.min(found[1], y); found[2] = Math.max(found[2], x); found[3] = Math.max(found[3], y); }
  return found;
}

export class Scene {
  world = []; // the pose of every panel on the table
  shown = []; // what was painted last: the panel, and its corners on the stage
  view = HERE; eye = [0, 0, FAR]; fine = 1;

  constructor(stage, data) {
    this.stage = stage; this.nodes = data.nodes; this.groups = data.groups.length;
    Object.seal(this); // so that nobody watches it either
    this.fit();
  }

  // near enough that all of it stays on the stage on its whole way, panels that stand up as well
  fit() {
    const { clientWidth: width, clientHeight: height } = this.stage, points = this.spread(), [left, top, right, bottom] = bounds(points);
    this.fine = Math.min(devicePixelRatio || 1, 2);
    this.stage.width = width * this.fine; this.stage.height = height * this.fine;
    this.eye = [width * EYE[0], height * EYE[1], FAR];
    const spin = (SPUN * Math.PI) / 180, tilted = after(about([[0, 0], [1, 0]], LEANS), [Math.cos(spin), Math.sin(spin), 0, -Math.sin(spin), Math.cos(spin), 0, 0, 0, 1, 0, 0, 0]);
    let scale = Math.min(width / (right - left), height / (bottom - top)), x = width / 2, y = height / 2;
    for (let n = 0; n < 4; n++) { // nearer parts are larger, so that it takes a few rounds
      this.view = shifted(after(tilted, [scale, 0, 0, 0, scale, 0, 0, 0, scale, -(scale * (left + right)) / 2, -(scale * (top + bottom)) / 2, 0]), [x, y, 0]);
      const [l, t, r, b] = bounds(points.map((point) => this.flat(moved(this.view, point)))), more = Math.min((width - 2 * ROOM) / (r - l), (height - 2 * ROOM) / (b - t));
      scale *= more;
      x = width / 2 - ((l + r) / 2 - x) * more; y = height / 2 - ((t + b) / 2 - y) * more;
    }
  }

  // where the corners of all panels lie on the way from the first state to the last
  spread() {
    const steps = Math.min(6 * this.groups, 72), points = [];
    for (let n = 0; n <= steps; n++) {
      this.turn(Array.from({ length: this.groups }, (_, group) => Math.min(Math.max((this.groups * n) / steps - group, 0), 1)));
      this.nodes.forEach((one, node) => { if (!one.paper) for (const point of one.outline) points.push(moved(this.world[node], point)); });
    }
    return points;
  }

  // the place on the stage of a point in space
  flat([x, y, z]) { const share = FAR / (FAR - z); return [this.eye[0] + (x - this.eye[0]) * share, this.eye[1] + (y - this.eye[1]) * share]; }

  // every panel where it is when each group is so far done, from 0 to 1
  turn(shares) {
    let state = 0;
    while (state < this.groups && shares[state] >= 1) state += 1;
    const part = state < this.groups ? shares[state] : 0, ahead = shares.some((share, n) => n > state && share > 0);
    this.world = [];
    for (const one of this.nodes) {
      // a paper is glued: it lies in the plane of its panel
      const own = one.paper ? one.place : this.lies(one, shares, state, part, ahead);
      this.world.push(after(one.parent < 0 ? HERE : this.world[one.parent], own));
    }
  }

  lies(one, shares, state, part, ahead) {
    let angle = one.angle;
    for (const [group, degrees] of one.turns) angle += ease(shares[group]) * degrees;
    const from = one.lifts[state], to = one.lifts[Math.min(state + 1, this.groups)], last = one.lifts[this.groups];
    // where groups are done out of turn, what is done lies as it will when all is shut
    const share = !ahead ? part : one.turns.length ? Math.max(...one.turns.map(([group]) => shares[group])) : part, goal = ahead ? last : to;
    const place = shifted(one.place, from.map((value, n) => value + share * (goal[n] - value)));
    return one.line && angle ? after(place, about(one.line, angle)) : place;
  }

  faces() {
    return this.nodes.flatMap((one, node) => {
      const m = after(this.view, this.world[node]), long = Math.hypot(m[6], m[7], m[8]), normal = [m[6] / long, m[7] / long, m[8] / long];
      const face = (outline, paint, only) => ({ node: one.paper ? one.parent : node, paint, only, normal, points: outline.map((point) => moved(m, point)), real: outline.map(() => true) });
      return [...(one.paint ? [face(one.outline, one.paint, one.paper ? true : undefined)] : []), ...one.on.map((mark) => face(mark.outline, mark.paint, mark.inside))];
    });
  }

  draw(shares) {
    this.turn(shares);
    const pen = this.stage.getContext("2d"), style = getComputedStyle(this.stage), edge = style.getPropertyValue("--ink-soft"), known = {};
    const table = this.view.slice(6, 9), high = Math.hypot(...table);
    const colour = (name) => {
      if (!known[name]) { pen.fillStyle = style.getPropertyValue("--sheet-" + name); const hex = pen.fillStyle; known[name] = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)); }
      return known[name];
    };
    pen.setTransform(this.fine, 0, 0, this.fine, 0, 0);
    pen.clearRect(0, 0, this.stage.width, this.stage.height);
    pen.lineJoin = "round";
    this.shown = [];
    for (const face of ordered(this.faces(), this.eye)) {
      const { normal, paint, only } = face, inside = seen(face, this.eye), card = only === undefined;
      if (!card && inside !== only) continue;
      // what stands up is a little darker than what lies on the table
      const light = 1 - DIM * (1 - Math.abs(normal[0] * table[0] + normal[1] * table[1] + normal[2] * table[2]) / high);
      const rgb = (card && inside ? pale(colour(paint)) : colour(paint)).map((value) => Math.round(value * light));
      const points = face.points.map((point) => this.flat(point));
      this.paint(pen, points, face.real, "rgb(" + rgb.join(" ") + ")", edge);
      this.shown.push({ node: face.node, points });
    }
  }

  paint(pen, points, real, fill, edge) {
    pen.beginPath();
    points.forEach(([x, y], n) => (n ? pen.lineTo(x, y) : pen.moveTo(x, y)));
    pen.closePath();
    pen.fillStyle = pen.strokeStyle = fill;
    pen.lineWidth = 0.6; // where a face was cut its two parts have to meet
    pen.fill();
    pen.stroke();
    pen.beginPath();
    points.forEach(([x, y], n) => { if (real[n]) { pen.moveTo(x, y); pen.lineTo(...points[(n + 1) % points.length]); } });
    pen.strokeStyle = edge;
    pen.globalAlpha = 0.6;
    pen.stroke();
    pen.globalAlpha = 1;
  }

  // the number of the panel that is seen at a place of the window; -1 for none
  hit(x, y) {
    const box = this.stage.getBoundingClientRect();
    return this.shown.findLast((one) => holds(one.points, x - box.left, y - box.top))?.node ?? -1;
  }
}
