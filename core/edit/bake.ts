/**
 * Bakes set forms into the clay, one after the other: a raised form stands on the mean height of the clay under it and
 * takes what is lower up to its own height; a sunk one takes what is higher down. Masked clay stays.
 */
import { setFormHeight, setFormPlaces, setFormReach } from '#core/setForm';
import { keepLeaf, LEAF, LEAF_SHIFT, leavesInSphere, reserveCopies } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { SetForm } from '#core/settings';
import type { Surface } from '#core/sculpt';

/** Heights of parts from above, by the name of their blob. */
export type PartHeights = ReadonlyMap<string, Picture>;

export function bake(s: Surface, setForms: readonly SetForm[], parts: PartHeights): void {
  for (const setForm of setForms) {
    const heights = setForm.part ? (parts.get(setForm.part.heights) ?? null) : null;
    if (setForm.part && !heights) throw new Error(`The heights of “${setForm.part.name}” are not loaded.`);
    for (const place of setFormPlaces(setForm)) bakeOne(s, setForm, place, heights);
  }
}

/** Clay lies within this height of the slab's middle plane. */
const TALLEST = 4;

function bakeOne(
  s: Surface,
  setForm: SetForm,
  place: { x: number; y: number; turnRad: number },
  heights: Picture | null,
): void {
  const { mesh, touched, amount } = s;
  const { positions: p, mask, vertexCount } = mesh;
  const reach = setFormReach(setForm);
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
      const h = setFormHeight(setForm, dx * c + dy * n, dy * c - dx * n, heights);
      if (h <= 0) continue;
      touched[count] = v;
      amount[count++] = h;
      sum += p[v * 3 + 2];
    }
  }
  if (count === 0) return;
  const ground = sum / count;
  const sign = setForm.set === 'sunk' ? -1 : 1;
  let moved = 0;
  for (let i = 0; i < count; i++) {
    const v = touched[i];
    const to = ground + sign * amount[i];
    const move = (to - p[v * 3 + 2]) * (1 - mask[v]);
    if (move * sign <= 0) continue;
    reserveCopies(s.start, mesh, 1);
    keepLeaf(s.start, mesh, v >> LEAF_SHIFT);
    p[v * 3 + 2] = p[v * 3 + 2] + move;
    touched[moved++] = v;
  }
  if (moved > 0) s.loops.renew(s, touched, moved);
}
