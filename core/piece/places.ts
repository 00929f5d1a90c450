/** Where the single forms of a piece stand: one, a row along its turn, or a ring round its middle. */
import type { Piece } from '#core/settings';

export interface PiecePlace {
  x: number;
  y: number;
  turnRad: number;
}

export function piecePlaces(piece: Piece): PiecePlace[] {
  const turn = (piece.turn * Math.PI) / 180;
  const { x, y, count, pitch } = piece;
  switch (piece.repeat) {
    case 'one':
      return [{ x, y, turnRad: turn }];
    case 'row':
      return Array.from({ length: count }, (_, i) => {
        const at = (i - (count - 1) / 2) * pitch;
        return { x: x + Math.cos(turn) * at, y: y + Math.sin(turn) * at, turnRad: turn };
      });
    case 'ring':
      return Array.from({ length: count }, (_, i) => {
        const angle = turn + (2 * Math.PI * i) / count;
        return { x: x + Math.cos(angle) * pitch, y: y + Math.sin(angle) * pitch, turnRad: angle };
      });
  }
}

/** Index of the topmost piece at (x, y), −1 where there is none. */
export function pieceAt(pieces: readonly Piece[], x: number, y: number, reach: (piece: Piece) => number): number {
  for (let i = pieces.length - 1; i >= 0; i--) {
    const piece = pieces[i];
    if (piecePlaces(piece).some((p) => Math.hypot(p.x - x, p.y - y) <= reach(piece))) return i;
  }
  return -1;
}
