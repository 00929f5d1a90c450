/** Background dirt and specks: what lies apart from the form and is faint, or small. */
import { components, maskWhere } from '#core/filter';
import type { Picture } from '#core/picture';
import type { Check } from './check';

/** Off the ground by more than this is seen as a bump. */
const DIRT = 0.006;
/** Off the ground by more than this belongs to the form, or is a speck. */
const FORM = 0.08;
export const DIRT_LIMIT = 0.01;
/** Forms smaller than this share of the largest one are specks. */
const SPECK_SHARE = 0.004;
const MOST_SHOWN = 60;

export interface BackgroundReport {
  /** Share of the picture that is dirty ground. */
  dirt: number;
  /** Middle and radius of each speck, 0–1 of the side, largest first. */
  specks: { x: number; y: number; r: number }[];
  /**
   * Upper left corners, 0–1 of the side, of the cells of a grid of DIRT_CELLS a side where a third of the pixels is
   * dirt.
   */
  dirty: { x: number; y: number }[];
}

export const DIRT_CELLS = 48;

export function measureBackground(picture: Picture, ground: number): BackgroundReport {
  const { width, height, data } = picture;
  const off = (i: number): number => Math.abs(data[i] - ground);
  const form = components(
    maskWhere(data, (v) => Math.abs(v - ground) > FORM),
    width,
    height,
  );
  const largest = form.areas.slice(1).reduce((a, b) => Math.max(a, b), 0);
  // What hangs together with a form, down to the faintest, is the form's own soft edge.
  const faint = components(
    maskWhere(data, (v) => Math.abs(v - ground) > DIRT),
    width,
    height,
  );
  const ofForm = new Uint8Array(faint.count + 1);
  for (let i = 0; i < data.length; i++)
    if (form.labels[i] > 0 && form.areas[form.labels[i]] >= largest * SPECK_SHARE) ofForm[faint.labels[i]] = 1;
  let dirt = 0;
  const cells = new Uint32Array(DIRT_CELLS * DIRT_CELLS);
  const boxes = new Map<number, { x0: number; y0: number; x1: number; y1: number; n: number }>();
  for (let i = 0; i < data.length; i++) {
    const label = faint.labels[i];
    if (label === 0 || ofForm[label]) continue;
    if (off(i) <= FORM) {
      dirt++;
      const column = Math.floor(((i % width) / width) * DIRT_CELLS);
      cells[Math.floor((Math.floor(i / width) / height) * DIRT_CELLS) * DIRT_CELLS + column]++;
    }
    if (form.labels[i] === 0) continue;
    const x = i % width;
    const y = (i - x) / width;
    const box = boxes.get(label);
    if (!box) boxes.set(label, { x0: x, y0: y, x1: x, y1: y, n: 1 });
    else {
      box.x0 = Math.min(box.x0, x);
      box.x1 = Math.max(box.x1, x);
      box.y1 = y;
      box.n++;
    }
  }
  const specks = [...boxes.values()]
    .sort((a, b) => b.n - a.n)
    .slice(0, MOST_SHOWN)
    .map(({ x0, y0, x1, y1 }) => ({
      x: (x0 + x1 + 1) / 2 / width,
      y: (y0 + y1 + 1) / 2 / height,
      r: Math.max(x1 - x0 + 1, y1 - y0 + 1) / 2 / width,
    }));
  const third = data.length / (DIRT_CELLS * DIRT_CELLS) / 3;
  const dirty: BackgroundReport['dirty'] = [];
  cells.forEach((n, k) => {
    if (n > third) dirty.push({ x: (k % DIRT_CELLS) / DIRT_CELLS, y: Math.floor(k / DIRT_CELLS) / DIRT_CELLS });
  });
  return { dirt: dirt / data.length, specks, dirty };
}

export function checkBackground({ dirt }: BackgroundReport): Check {
  const ok = dirt <= DIRT_LIMIT;
  return {
    name: 'dirt',
    ok,
    value: dirt * 100,
    limit: DIRT_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? 'The background is clean'
      : `${(dirt * 100).toFixed(1)} % of the picture is faint dirt on the ground, and would be felt on the clay.`,
  };
}

export function checkSpecks({ specks }: BackgroundReport): Check {
  const ok = specks.length === 0;
  return {
    name: 'specks',
    ok,
    value: specks.length,
    limit: 0,
    unit: '',
    sentence: ok
      ? 'No specks'
      : `${specks.length}${specks.length === MOST_SHOWN ? ' or more' : ''} ${specks.length === 1 ? 'speck lies' : 'specks lie'} apart from the form.`,
  };
}
