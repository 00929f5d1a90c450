/**
 * From places on the slab to pixels of a frame and back: sample centres lie at whole columns and rows, the first row at
 * the top. column = across + x·cos + y·sin, row = down + x·sin − y·cos, with cosine and sine in pixels a body unit;
 * plain numbers, so that loops over millions of vertices don't call anything.
 */
import type { Frame } from '#core/settings';

export interface FrameMap {
  cos: number;
  sin: number;
  across: number;
  down: number;
}

export function frameMap(frame: Frame, size: number): FrameMap {
  const turn = (frame.turn * Math.PI) / 180;
  const scale = size / frame.side;
  const cos = Math.cos(turn) * scale;
  const sin = Math.sin(turn) * scale;
  const middle = size / 2 - 0.5;
  return { cos, sin, across: middle - frame.x * cos - frame.y * sin, down: middle - frame.x * sin + frame.y * cos };
}

/** Place of a pixel's centre. */
export function pixelPlace(map: FrameMap, column: number, row: number): readonly [number, number] {
  const { cos, sin } = map;
  const square = cos * cos + sin * sin;
  const u = column - map.across;
  const v = row - map.down;
  return [(u * cos + v * sin) / square, (u * sin - v * cos) / square];
}
