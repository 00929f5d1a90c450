/**
 * Retouching by hand: each stroke is walked at a quarter of its radius and laid as soft round dabs, in the order drawn.
 *
 * Erase goes to the ground, paint to a grey, lighten and darken change chosen tones, smudge carries what was under the
 * last dab along, copy reads from a fixed way off, and heal reads from a place round the stroke that is most like its
 * rim, lifted or lowered to meet it.
 */
import type { Picture } from '#core/picture';
import type { RetouchStroke } from '#core/settings';

/** Strokes' lengths are shares of the longer side. Answers a new picture. */
export function retouch(from: Picture, strokes: readonly RetouchStroke[], ground: number): Picture {
  let at: Picture = { ...from, data: from.data.slice() };
  for (const stroke of strokes) at = retouched(at, stroke, ground);
  return at;
}

interface Dab {
  x: number;
  y: number;
  pressure: number;
}

/** Changes `picture` in place and returns it. */
function retouched(picture: Picture, stroke: RetouchStroke, ground: number): Picture {
  const longer = Math.max(picture.width, picture.height);
  const r = Math.max(0.5, (stroke.size / 100) * longer);
  const dabs = walk(stroke.points, longer, r / 4);
  switch (stroke.tool) {
    case 'erase':
      return brushed(picture, stroke, r, dabs, (v, w) => v + (ground - v) * w);
    case 'paint':
      return brushed(picture, stroke, r, dabs, (v, w) => v + (stroke.grey - v) * w);
    case 'lighten':
      return brushed(picture, stroke, r, dabs, (v, w) => v + (1 - v) * w * 0.25 * toneShare(v, stroke.range));
    case 'darken':
      return brushed(picture, stroke, r, dabs, (v, w) => v - v * w * 0.25 * toneShare(v, stroke.range));
    case 'copy':
      return copyFrom(picture, stroke, r, dabs, {
        dx: stroke.from[0] * longer,
        dy: stroke.from[1] * longer,
        meet: false,
      });
    case 'heal': {
      const [dx, dy] = likestPlace(picture, dabs, r);
      return copyFrom(picture, stroke, r, dabs, { dx, dy, meet: true });
    }
    case 'smudge':
      return smudge(picture, stroke, r, dabs);
  }
}

/** Places every `step` pixels along the samples; the first always. */
function walk(points: readonly number[], longer: number, step: number): Dab[] {
  const out: Dab[] = [];
  let rest = 0;
  for (let k = 0; k < points.length; k += 3) {
    const to = { x: points[k] * longer, y: points[k + 1] * longer, pressure: points[k + 2] };
    if (k === 0) {
      out.push(to);
      continue;
    }
    const x = points[k - 3] * longer;
    const y = points[k - 2] * longer;
    const length = Math.hypot(to.x - x, to.y - y);
    for (let along = step - rest; along <= length; along += step) {
      const t = along / length;
      out.push({
        x: x + (to.x - x) * t,
        y: y + (to.y - y) * t,
        pressure: points[k - 1] + (to.pressure - points[k - 1]) * t,
      });
    }
    rest = (rest + length) % step;
  }
  return out;
}

/** Shadows are what is dark, lights what is bright, mids what lies between, each fading into the next. */
function toneShare(v: number, range: RetouchStroke['range']): number {
  const c = v < 0 ? 0 : v > 1 ? 1 : v;
  switch (range) {
    case 'all':
      return 1;
    case 'shadows':
      return (1 - c) * (1 - c);
    case 'lights':
      return c * c;
    case 'mids':
      return 4 * c * (1 - c);
  }
}

function weight(rho: number, hardness: number): number {
  const hard = hardness / 100;
  if (rho >= 1) return 0;
  if (rho <= hard) return 1;
  const t = (rho - hard) / (1 - hard);
  return (1 - t * t) * (1 - t * t);
}

/** Calls `change` for each pixel of a dab with its weight, strength and pressure included. */
function eachPixel(
  picture: Picture,
  stroke: RetouchStroke,
  r: number,
  dab: Dab,
  change: (i: number, w: number, column: number, row: number) => void,
): void {
  const { width, height } = picture;
  const strength = (stroke.strength / 100) * dab.pressure;
  for (let j = Math.max(0, Math.floor(dab.y - r)); j < Math.min(height, dab.y + r); j++) {
    const dy = (j + 0.5 - dab.y) / r;
    for (let i = Math.max(0, Math.floor(dab.x - r)); i < Math.min(width, dab.x + r); i++) {
      const dx = (i + 0.5 - dab.x) / r;
      const w = weight(Math.sqrt(dx * dx + dy * dy), stroke.hardness) * strength;
      if (w > 0) change(j * width + i, w, i, j);
    }
  }
}

function brushed(
  picture: Picture,
  stroke: RetouchStroke,
  r: number,
  dabs: readonly Dab[],
  change: (v: number, w: number) => number,
): Picture {
  const { data } = picture;
  for (const dab of dabs) {
    eachPixel(picture, stroke, r, dab, (i, w) => {
      const v = change(data[i], w);
      data[i] = v < 0 ? 0 : v > 1 ? 1 : v;
    });
  }
  return picture;
}

/**
 * Reads `dx`, `dy` pixels off, from the picture as it was before the stroke; `meet` lifts what is read to the tone of
 * the place.
 */
function copyFrom(
  picture: Picture,
  stroke: RetouchStroke,
  r: number,
  dabs: readonly Dab[],
  { dx, dy, meet }: { dx: number; dy: number; meet: boolean },
): Picture {
  const { width, height, data } = picture;
  const before = data.slice();
  const column = Math.round(dx);
  const row = Math.round(dy);
  for (const dab of dabs) {
    const lift = meet
      ? rimMean(before, picture, dab.x, dab.y, r) - rimMean(before, picture, dab.x + dx, dab.y + dy, r)
      : 0;
    eachPixel(picture, stroke, r, dab, (i, w, c, l) => {
      const x = c + column;
      const y = l + row;
      if (x < 0 || y < 0 || x >= width || y >= height) return;
      const v = Math.max(0, Math.min(1, before[y * width + x] + lift));
      data[i] = data[i] + (v - data[i]) * w;
    });
  }
  return picture;
}

const RIM_SAMPLES = 24;

/** Mean grey on the circle a little outside a dab. */
function rimMean(data: Float32Array, { width, height }: Picture, x: number, y: number, r: number): number {
  let sum = 0;
  for (let k = 0; k < RIM_SAMPLES; k++) {
    const a = (k / RIM_SAMPLES) * 2 * Math.PI;
    const i = Math.max(0, Math.min(width - 1, Math.floor(x + Math.cos(a) * r * 1.15)));
    const j = Math.max(0, Math.min(height - 1, Math.floor(y + Math.sin(a) * r * 1.15)));
    sum += data[j * width + i];
  }
  return sum / RIM_SAMPLES;
}

/**
 * Of 24 places round the stroke, the one whose rim differs least from the stroke's, and which the stroke doesn't touch
 * itself.
 */
function likestPlace(picture: Picture, dabs: readonly Dab[], r: number): [number, number] {
  const { width, height, data } = picture;
  let best: [number, number] = [2.4 * r, 0];
  let least = Infinity;
  for (const reach of [2.3, 3.2, 4.4]) {
    for (let k = 0; k < 8; k++) {
      const a = (k / 8) * 2 * Math.PI + reach;
      const dx = Math.cos(a) * r * reach;
      const dy = Math.sin(a) * r * reach;
      if (dabs.some((d) => d.x + dx < r || d.y + dy < r || d.x + dx > width - r || d.y + dy > height - r)) continue;
      if (dabs.some((d) => dabs.some((e) => Math.hypot(d.x + dx - e.x, d.y + dy - e.y) < 1.6 * r))) continue;
      let off = 0;
      for (const d of dabs)
        for (let n = 0; n < RIM_SAMPLES; n++) {
          const b = (n / RIM_SAMPLES) * 2 * Math.PI;
          const i = Math.max(0, Math.min(width - 1, Math.floor(d.x + Math.cos(b) * r * 1.15)));
          const j = Math.max(0, Math.min(height - 1, Math.floor(d.y + Math.sin(b) * r * 1.15)));
          const i2 = Math.max(0, Math.min(width - 1, Math.floor(i + dx)));
          const j2 = Math.max(0, Math.min(height - 1, Math.floor(j + dy)));
          off += Math.abs(data[j * width + i] - data[j2 * width + i2]);
        }
      if (off < least) {
        least = off;
        best = [dx, dy];
      }
    }
  }
  return best;
}

/** Each dab lays down what was picked up under the last one, and picks up what it leaves. */
function smudge(picture: Picture, stroke: RetouchStroke, r: number, dabs: readonly Dab[]): Picture {
  const { width, height, data } = picture;
  const side = Math.ceil(2 * r) + 1;
  const carried = new Float32Array(side * side);
  const pick = (dab: Dab): void => {
    for (let j = 0; j < side; j++) {
      const y = Math.max(0, Math.min(height - 1, Math.floor(dab.y - r) + j));
      for (let i = 0; i < side; i++)
        carried[j * side + i] = data[y * width + Math.max(0, Math.min(width - 1, Math.floor(dab.x - r) + i))];
    }
  };
  dabs.forEach((dab, k) => {
    if (k > 0) {
      eachPixel(picture, stroke, r, dab, (i, w, c, l) => {
        const x = c - Math.floor(dab.x - r);
        const y = l - Math.floor(dab.y - r);
        if (x < 0 || y < 0 || x >= side || y >= side) return;
        data[i] = data[i] + (carried[y * side + x] - data[i]) * Math.min(0.98, w);
      });
    }
    pick(dab);
  });
  return picture;
}
