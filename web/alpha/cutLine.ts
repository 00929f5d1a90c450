/** The line of the profile on the picture, 0–1 of its side, and the heights under it. */
export interface CutLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export const CROSSING: CutLine = { x0: 0.06, y0: 0.5, x1: 0.94, y1: 0.5 };
