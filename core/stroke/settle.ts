/**
 * Places that settle on guides: centre lines, a grid, and the line through the last stamps. Plane places, body units.
 */

export type PlanePlace = readonly [x: number, y: number];

export interface Guides {
  /** The lines x = 0 and y = 0. */
  centre: boolean;
  grid: boolean;
  /** From grid line to grid line, body units. */
  step: number;
  /** Two places that a line runs through; null for none. */
  line: readonly [PlanePlace, PlanePlace] | null;
}

/**
 * The place on the guides that is nearest, no farther along each axis than `reach`; on a grid it is always a crossing.
 * Close to the line through the last stamps it lies on that, at a crossing with another guide where one is near.
 */
export function settled(at: PlanePlace, guides: Guides, reach: number): PlanePlace {
  const onLine = guides.line && projected(at, guides.line);
  if (onLine && Math.hypot(onLine[0] - at[0], onLine[1] - at[1]) <= reach)
    return crossingNear(onLine, guides, reach) ?? onLine;
  return [settledOn(at[0], guides, reach) ?? at[0], settledOn(at[1], guides, reach) ?? at[1]];
}

/** The guide nearest to a coordinate; null where none is near. */
function settledOn(c: number, { centre, grid, step }: Guides, reach: number): number | null {
  // Never −0, which would be shown.
  if (grid) return Math.round(c / step) * step + 0;
  return centre && Math.abs(c) <= reach ? 0 : null;
}

function projected(at: PlanePlace, [a, b]: readonly [PlanePlace, PlanePlace]): PlanePlace | null {
  const line = [b[0] - a[0], b[1] - a[1]] as const;
  const square = line[0] * line[0] + line[1] * line[1];
  if (square < 1e-12) return null;
  const t = ((at[0] - a[0]) * line[0] + (at[1] - a[1]) * line[1]) / square;
  return [a[0] + line[0] * t, a[1] + line[1] * t];
}

/** Where the line crosses the guides next to a place on it. */
function crossingNear(on: PlanePlace, guides: Guides, reach: number): PlanePlace | null {
  const [a, b] = guides.line!;
  const line = [b[0] - a[0], b[1] - a[1]] as const;
  const found: PlanePlace[] = [];
  for (const k of [0, 1] as const) {
    const c = settledOn(on[k], guides, reach);
    if (c === null || Math.abs(line[k]) < 1e-9) continue;
    const t = (c - on[k]) / line[k];
    found.push([on[0] + line[0] * t, on[1] + line[1] * t]);
  }
  const far = (p: PlanePlace): number => Math.hypot(p[0] - on[0], p[1] - on[1]);
  const [nearest] = found.sort((p, q) => far(p) - far(q));
  return nearest && far(nearest) <= reach ? nearest : null;
}
