/**
 * Bakes pieces into the clay, one after the other: a raised form stands on the mean height of the clay under it and
 * takes what is lower up to its own height; a sunk one takes what is higher down. Masked clay stays.
 */
import { pieceHeight, piecePlaces, pieceReach } from '#core/piece';
import { keepLeaf, LEAF, LEAF_SHIFT, leavesInSphere, reserveCopies } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { Piece } from '#core/settings';
import type { Surface } from '#core/sculpt';

/** Heights of parts from above, by the name of their blob. */
export type PartHeights = ReadonlyMap<string, Picture>;

export function bake(s: Surface, pieces: readonly Piece[], parts: PartHeights): void {
  for (const piece of pieces) {
    const heights = piece.part ? (parts.get(piece.part.heights) ?? null) : null;
    if (piece.part && !heights) throw new Error(`The heights of “${piece.part.name}” are not loaded.`);
    for (const place of piecePlaces(piece)) bakeOne(s, piece, place, heights);
  }
}

/** Clay lies within this height of the slab's middle plane. */
const TALLEST = 4;

function bakeOne(
  s: Surface,
  piece: Piece,
  place: { x: number; y: number; turnRad: number },
  heights: Picture | null,
): void {
  const { mesh, touched, amount } = s;
  const { positions: p, mask, vertexCount } = mesh;
  const reach = pieceReach(piece);
  const c = Math.cos(place.turnRad);
  const n = Math.sin(place.turnRad);
  const found = leavesInSphere(mesh, place.x, place.y, 0, Math.hypot(reach, TALLEST), s.leaves);
  let count = 0;
  let sum = 0;
  for (let i = 0; i < found; i++) {
    const first = s.leaves[i] * LEAF;
    const end = Math.min(first + LEAF, vertexCount);
    for (let v = first; v < end; v++) {
      const dx = p[v * 3] - place.x;
      const dy = p[v * 3 + 1] - place.y;
      if (dx * dx + dy * dy > reach * reach) continue;
      const h = pieceHeight(piece, dx * c + dy * n, dy * c - dx * n, heights);
      if (h <= 0) continue;
      touched[count] = v;
      amount[count++] = h;
      sum += p[v * 3 + 2];
    }
  }
  if (count === 0) return;
  const ground = sum / count;
  const sign = piece.set === 'sunk' ? -1 : 1;
  let moved = 0;
  for (let i = 0; i < count; i++) {
    const v = touched[i];
    const to = ground + sign * amount[i];
    const way = (to - p[v * 3 + 2]) * (1 - mask[v]);
    if (way * sign <= 0) continue;
    reserveCopies(s.start, mesh, 1);
    keepLeaf(s.start, mesh, v >> LEAF_SHIFT);
    p[v * 3 + 2] = p[v * 3 + 2] + way;
    touched[moved++] = v;
  }
  if (moved > 0) s.loops.renew(s, touched, moved);
}
