/** Masks made from an alpha laid over the frame, from heights, and from slopes. */
import { sample, type Picture } from '#core/picture';
import type { Frame } from '#core/settings';
import type { Surface } from '#core/sculpt';
import { changeMask } from './change';
import type { MaskMode } from './edit';

/** Added, the larger of the two masks counts; taken away, what is left of the one that was. */
function joined(now: number, made: number, mode: MaskMode): number {
  return mode === 'add' ? Math.max(now, made) : Math.min(now, 1 - made);
}

export function maskFromAlpha(s: Surface, picture: Picture, frame: Frame, mode: MaskMode): void {
  const { positions: p } = s.mesh;
  const turn = (frame.turn * Math.PI) / 180;
  const c = Math.cos(turn);
  const n = Math.sin(turn);
  changeMask(s, (vertex, now) => {
    const dx = p[vertex * 3] - frame.x;
    const dy = p[vertex * 3 + 1] - frame.y;
    const u = (dx * c + dy * n) / frame.side + 0.5;
    const v = 0.5 - (dy * c - dx * n) / frame.side;
    return u < 0 || u > 1 || v < 0 || v > 1 ? now : joined(now, sample(picture, u, v), mode);
  });
}

export function maskFromHeight(s: Surface, low: number, high: number, soft: number, mode: MaskMode): void {
  const { positions: p } = s.mesh;
  changeMask(s, (vertex, now) => joined(now, between(p[vertex * 3 + 2], low, high, soft), mode));
}

export function maskFromSlope(s: Surface, low: number, high: number, soft: number, mode: MaskMode): void {
  const { normals: n } = s.mesh;
  changeMask(s, (vertex, now) => {
    const degrees = (Math.acos(Math.max(-1, Math.min(1, n[vertex * 3 + 2]))) * 180) / Math.PI;
    return joined(now, between(degrees, low, high, soft), mode);
  });
}

/** 1 from low to high, falling to 0 over `soft` outside. */
function between(x: number, low: number, high: number, soft: number): number {
  const away = Math.max(low - x, x - high);
  if (away <= 0) return 1;
  return away >= soft ? 0 : 1 - away / soft;
}
