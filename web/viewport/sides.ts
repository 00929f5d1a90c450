/** The six ways to look at a body straight on, and how each is seen from the eye. */
import type { View } from '#core/stroke';

export interface Side {
  name: 'front' | 'back' | 'right' | 'left' | 'above' | 'below';
  label: string;
  /** From the body to the eye. */
  toward: readonly [number, number, number];
}

export const SIDES: readonly Side[] = [
  { name: 'front', label: 'From the front', toward: [0, 0, 1] },
  { name: 'back', label: 'From the back', toward: [0, 0, -1] },
  { name: 'left', label: 'From the left', toward: [-1, 0, 0] },
  { name: 'right', label: 'From the right', toward: [1, 0, 0] },
  { name: 'above', label: 'From above', toward: [0, 1, 0] },
  { name: 'below', label: 'From below', toward: [0, -1, 0] },
];

export interface SeenSide {
  side: Side;
  /** Right and down in the view, −1 to 1; and how near it is to the eye, −1 to 1. */
  x: number;
  y: number;
  near: number;
}

/** Where the sides lie as the eye sees them, farthest first. */
export function seenSides({ right, up, toward }: View): SeenSide[] {
  const along = (a: readonly number[], b: readonly number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  return SIDES.map((side) => ({
    side,
    x: along(side.toward, right),
    y: -along(side.toward, up),
    near: along(side.toward, toward),
  })).sort((a, b) => a.near - b.near);
}
