// Where a thing that is dragged comes to lie along one axis: what it is caught by.

const CATCHES = 2.5, BORDER = 6; // mm

// The place in mm of a thing so large on a face that reaches so far: at an edge, a border off it, in the middle, beside or flush with what else lies there
// (from and to of each), else on a mark of the ruler.
export function caught(mm, size, far, others, step) {
  const ends = [0, BORDER, (far - size) / 2, far - size - BORDER, far - size];
  for (const [from, to] of others) ends.push(from, to, from - size, to - size);
  const near = ends.reduce((best, end) => (Math.abs(mm - end) < Math.abs(mm - best) ? end : best));
  return Math.abs(mm - near) < CATCHES ? near : Math.round(mm / step) * step;
}

// A place between low and high, on a mark of the ruler.
export const onMark = (mm, step, low, high) => Math.min(Math.max(Math.round(mm / step) * step, low), high);
