"""Where a panel lies in space: a turn and a shift, exact at multiples of 90 degrees. x and y lie on the
table, z stands up from it, in mm."""

from __future__ import annotations

import math
from typing import Final, NamedTuple

from pleat.core.engines.folding.convex import Point, Polygon

Vector = tuple[float, float, float]
_EXACT: Final[dict[float, tuple[float, float]]] = {
    0: (1.0, 0.0),
    90: (0.0, 1.0),
    180: (-1.0, 0.0),
    270: (0.0, -1.0),
}


def cos_sin(degrees: float) -> tuple[float, float]:
    """Cosine and sine, with no error at multiples of 90."""
    found = _EXACT.get(degrees % 360)
    return found or (math.cos(math.radians(degrees)), math.sin(math.radians(degrees)))


class Pose(NamedTuple):
    """``x``, ``y`` and ``z`` are where the piece's own axes point, ``at`` is where its own corner lies."""

    x: Vector = (1.0, 0.0, 0.0)
    y: Vector = (0.0, 1.0, 0.0)
    z: Vector = (0.0, 0.0, 1.0)
    at: Vector = (0.0, 0.0, 0.0)

    def turned(self, of: Vector) -> Vector:
        """Where a direction of the piece's own points."""
        (a, b, c), ((xx, xy, xz), (yx, yy, yz), (zx, zy, zz), _) = of, self
        return a * xx + b * yx + c * zx, a * xy + b * yy + c * zy, a * xz + b * yz + c * zz

    def place(self, of: Vector) -> Vector:
        """Where a point of the piece's own lies."""
        a, b, c = self.turned(of)
        return a + self.at[0], b + self.at[1], c + self.at[2]

    def after(self, first: Pose) -> Pose:
        """First ``first``, then this."""
        x, y, z, (ax, ay, az) = first
        (a, b, c), turned = self.turned((ax, ay, az)), self.turned
        return Pose(turned(x), turned(y), turned(z), (a + self.at[0], b + self.at[1], c + self.at[2]))

    @property
    def back(self) -> Pose:
        """What undoes it."""
        (xx, xy, xz), (yx, yy, yz), (zx, zy, zz), at = self
        undone = Pose((xx, yx, zx), (xy, yy, zy), (xz, yz, zz))
        a, b, c = undone.turned(at)
        return undone._replace(at=(-a, -b, -c))

    @property
    def level(self) -> bool:
        """Whether the panel lies parallel to the table."""
        return abs(self.x[2]) < 1e-9 and abs(self.y[2]) < 1e-9

    @property
    def up(self) -> bool:
        """Whether side A is the upper one."""
        return self.z[2] > 0

    def on_table(self, polygon: Polygon) -> Polygon:
        """The shadow of a polygon of the piece's own on the table."""
        (xx, xy, _), (yx, yy, _), (ax, ay, _) = self.x, self.y, self.at
        return tuple((px * xx + py * yx + ax, px * xy + py * yy + ay) for px, py in polygon)


FLAT: Final = Pose()


def folded(start: Point, end: Point, towards: Point, degrees: float) -> Pose:
    """The pose of a panel that was flat, after a fold along the line from ``start`` to ``end`` by ``degrees``
    out of the plane; the point ``towards`` of it rises above side A where they are positive."""
    long = math.dist(start, end)
    along = ((end[0] - start[0]) / long, (end[1] - start[1]) / long)
    across = (-along[1], along[0])
    if across[0] * (towards[0] - start[0]) + across[1] * (towards[1] - start[1]) < 0:
        across = (-across[0], -across[1])
    cosine, sine = cos_sin(degrees)
    # along stays, across goes to cosine across + sine z, z to cosine z - sine across; written out for the
    # piece's own axes
    turned = [
        (
            along[n] * along[0] + cosine * across[n] * across[0],
            along[n] * along[1] + cosine * across[n] * across[1],
            sine * across[n],
        )
        for n in range(2)
    ]
    up = (-sine * across[0], -sine * across[1], cosine)
    fixed = Pose(turned[0], turned[1], up)
    moved = fixed.turned((start[0], start[1], 0.0))
    return Pose(turned[0], turned[1], up, (start[0] - moved[0], start[1] - moved[1], -moved[2]))


def apart(one: Pose, other: Pose, points: Polygon) -> float:
    """The farthest that two poses put one of these points apart, in mm."""
    return max((math.dist(one.place((x, y, 0.0)), other.place((x, y, 0.0))) for x, y in points), default=0.0)
