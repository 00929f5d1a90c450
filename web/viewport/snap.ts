/** Keeps a line to steps of 15° as seen, at the length the hand gave it. Places are pixels of the view. */
export interface ViewPlace {
  x: number;
  y: number;
}

const STEP_RAD = Math.PI / 12;

export function snapped(from: ViewPlace, to: ViewPlace): ViewPlace {
  const angle = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / STEP_RAD) * STEP_RAD;
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return { x: from.x + Math.cos(angle) * length, y: from.y + Math.sin(angle) * length };
}
