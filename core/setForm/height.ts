/**
 * Height of a set form over its footprint: (u, v) in body units from its middle, before turning; 0 outside.
 * Sides stand upright; the upper edge is rounded by `edge` of the height.
 */
import { sample, type Picture } from '#core/picture';
import type { SetForm } from '#core/settings';

/** `heights` are those of its part, and needed by parts alone. */
export function setFormHeight(setForm: SetForm, u: number, v: number, heights: Picture | null = null): number {
  const { size: r, height: h, form } = setForm;
  const half = r * (setForm.width / 100);
  const d = Math.sqrt(u * u + v * v);
  switch (form) {
    case 'dome':
      return d < r ? h * Math.sqrt(1 - (d * d) / (r * r)) : 0;
    case 'disc':
      return rounded(setForm, r - d, h);
    case 'ring':
      return rounded(setForm, Math.min(r - d, d - (r - half)), h);
    case 'hex':
      return rounded(setForm, (r * Math.sqrt(3)) / 2 - hexReach(u, v), h);
    case 'pin':
      return d < r ? h * (0.7 + 0.3 * Math.sqrt(1 - (d * d) / (r * r))) : 0;
    case 'bar':
      return rounded(setForm, Math.min(r - Math.abs(u), half - Math.abs(v)), h);
    case 'part':
      return heights && Math.abs(u) < r && Math.abs(v) < r ? h * sample(heights, (u / r + 1) / 2, (1 - v / r) / 2) : 0;
    case 'wedge':
      return rounded(setForm, Math.min(r - Math.abs(u), half - Math.abs(v)), (h * (u + r)) / (2 * r));
  }
}

/** Radius of the circle that holds one set form. */
export function setFormReach(setForm: SetForm): number {
  switch (setForm.form) {
    case 'bar':
    case 'wedge':
      return setForm.size * Math.hypot(1, setForm.width / 100);
    case 'part':
      return setForm.size * Math.SQRT2;
    default:
      return setForm.size;
  }
}

/** `inside` is the distance to the outline, positive inside. */
function rounded(setForm: SetForm, inside: number, height: number): number {
  if (inside <= 0) return 0;
  const e = Math.min(height, setForm.height * (setForm.edge / 100));
  if (e <= 0 || inside >= e) return height;
  return height - e + Math.sqrt(e * e - (e - inside) * (e - inside));
}

/** Largest distance across the three pairs of a hexagon's sides; its corners lie on the u axis. */
function hexReach(u: number, v: number): number {
  const a = Math.abs(v);
  const b = Math.abs((u * Math.sqrt(3)) / 2 + v / 2);
  const c = Math.abs((u * Math.sqrt(3)) / 2 - v / 2);
  return Math.max(a, b, c);
}
