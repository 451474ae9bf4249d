// Flat convex faces in space, put in order from the back to the front for an eye that stands still. Where none of two lies wholly before the other,
// one is cut along the plane of the other: a binary space partition, walked as it is made. A face has points [x, y, z], a normal of length 1 that looks
// from its side A, and real: which of its sides are edges and not cuts, each from the point of its number to the next.

const HAIR = 0.02;
const dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

// what of a face lies on one side of a plane, from its corners' distances; sign 1 is the side that its normal looks to
function part(face, away, sign) {
  const points = [], real = [], count = face.points.length;
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count, here = sign * away[i], there = sign * away[j];
    if (here >= -HAIR) { points.push(face.points[i]); real.push((there >= -HAIR || here > HAIR) && face.real[i]); }
    if ((here > HAIR && there < -HAIR) || (here < -HAIR && there > HAIR)) {
      const share = here / (here - there), a = face.points[i], b = face.points[j];
      points.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1]), a[2] + share * (b[2] - a[2])]);
      real.push(there > HAIR && face.real[i]);
    }
  }
  return points.length > 2 ? { ...face, points, real } : null;
}

const ahead = (face, eye) => dot(face.normal, eye) - dot(face.normal, face.points[0]);

function walk(faces, eye, found) {
  if (!faces.length) return;
  const pivot = faces[faces.length >> 1], off = dot(pivot.normal, pivot.points[0]), same = [], over = [], under = [];
  for (const face of faces) {
    if (face === pivot) { same.push(face); continue; }
    const away = face.points.map((point) => dot(pivot.normal, point) - off), most = Math.max(...away), least = Math.min(...away);
    if (most <= HAIR && least >= -HAIR) same.push(face);
    else if (least >= -HAIR) over.push(face);
    else if (most <= HAIR) under.push(face);
    else {
      const one = part(face, away, 1), other = part(face, away, -1);
      if (one) over.push(one);
      if (other) under.push(other);
    }
  }
  const above = dot(pivot.normal, eye) >= off;
  walk(above ? under : over, eye, found);
  found.push(...same);
  walk(above ? over : under, eye, found);
}

// Faces of one plane keep the order they came in.
export function ordered(faces, eye) { const sorted = []; walk(faces, eye, sorted); return sorted; }
// Whether the eye looks at side A.
export const seen = (face, eye) => ahead(face, eye) > 0;
export function holds(points, x, y) {
  let inside = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [ax, ay] = points[i], [bx, by] = points[j];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}
