// Poses in space: where the x, y and z of something point, and where its corner lies, as twelve numbers.

export const HERE = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];
export const moved = (m, [x, y, z = 0]) => [m[0] * x + m[3] * y + m[6] * z + m[9], m[1] * x + m[4] * y + m[7] * z + m[10], m[2] * x + m[5] * y + m[8] * z + m[11]];
const turned = (m, x, y, z) => [m[0] * x + m[3] * y + m[6] * z, m[1] * x + m[4] * y + m[7] * z, m[2] * x + m[5] * y + m[8] * z];
// first the second, then the first
export const after = (m, n) => [...turned(m, n[0], n[1], n[2]), ...turned(m, n[3], n[4], n[5]), ...turned(m, n[6], n[7], n[8]), ...moved(m, [n[9], n[10], n[11]])];
export const shifted = (m, [x, y, z]) => [...m.slice(0, 9), m[9] + x, m[10] + y, m[11] + z];
// a turn about a line through a point, along a direction of the table
export function about([[ax, ay], [bx, by]], degrees) {
  const long = Math.hypot(bx - ax, by - ay), u = (bx - ax) / long, v = (by - ay) / long, angle = (degrees * Math.PI) / 180, c = Math.cos(angle), s = Math.sin(angle);
  const m = [c + u * u * (1 - c), u * v * (1 - c), -v * s, u * v * (1 - c), c + v * v * (1 - c), u * s, v * s, -u * s, c, 0, 0, 0], [x, y, z] = moved(m, [ax, ay]);
  return shifted(m, [ax - x, ay - y, -z]);
}
