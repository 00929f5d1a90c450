/**
 * Finds the marks of a sheet from its ink.
 *
 * A grey counts as mark above a limit between paper and ink (Otsu, "A threshold selection method from gray-level
 * histograms", 1979), lowered or raised by the sensitivity and never within the paper's grain. Faint parts stay where
 * they hang together with dense ones. Components nearer than `join` are one mark. What is small is a speck; what is
 * long and thin is a hair.
 */
import { blur, components, distanceFrom, maskWhere } from '#core/filter';
import type { Picture } from '#core/picture';
import type { Find, Outline } from '#core/settings';
import { outlineOf } from './outline';

export interface FoundMark {
  outlines: Outline[];
  /** Pixels of ink. */
  area: number;
}

export interface FoundMarks {
  marks: FoundMark[];
  specks: number;
  hairs: number;
  /** Deviation of the bare paper's ink: its grain. */
  grain: number;
  /** Ink above this counts as mark. */
  limit: number;
}

export const MOST_FOUND = 300;

/** Marks from the upper left in reading order. Throws a sentence when the sheet has too many. */
export function findMarks(ink: Picture, find: Find): FoundMarks {
  const { width, height } = ink;
  const longer = Math.max(width, height);
  const soft = blur(ink, 0.7);
  const between = otsu(soft);
  const grain = paperGrain(soft, between);
  const limit = Math.max(between * 2 ** ((50 - find.sensitivity) / 25) * 0.7, grain * 4);
  const found: FoundMarks = { marks: [], specks: 0, hairs: 0, grain, limit };
  if (!(limit < 0.98)) return found;
  const joinPx = (find.join / 100) * longer;
  const inked = connected(soft, limit * 0.55, limit);
  found.hairs = dropHairs(inked, width, height, 0.0022 * longer + 1, Math.max(4, joinPx));
  const group = groups(inked, width, height, joinPx / 2);
  const thickness = distanceFrom(
    maskWhere(inked, (x) => x === 0),
    width,
    height,
  );
  const measured = measure(inked, group.labels, group.count, thickness, width, height);
  const smallest = (find.smallest / 100) * longer;
  const thin = 0.0022 * longer + 1;
  const kept: { label: number; m: Measure }[] = [];
  measured.forEach((m, label) => {
    if (m.area === 0) return;
    const extent = Math.max(m.right - m.left, m.bottom - m.top);
    const spread = Math.hypot(m.right - m.left, m.bottom - m.top);
    if (extent < smallest || m.peak < limit) found.specks++;
    else if (m.thick <= thin && m.area < spread * thin * 2) found.hairs++;
    else kept.push({ label, m });
  });
  if (kept.length > MOST_FOUND) {
    throw new Error(
      `${kept.length} marks were found, and at most ${MOST_FOUND} can come from one sheet. Raise “smallest mark” or “join”, or lower “faint marks”.`,
    );
  }
  const pad = Math.max(2, Math.round(joinPx / 2 + 0.004 * longer));
  kept.sort((a, b) => rowOf(a.m, height) - rowOf(b.m, height) || a.m.left - b.m.left);
  for (const { label, m } of kept)
    found.marks.push({ outlines: outlineOf(inked, group.labels, label, m, pad, width, height), area: m.area });
  return found;
}

/**
 * Takes hairs away before components are joined: a component that is long and thin and has no other ink along its
 * way. The streaks of a bristle are as thin, but lie beside each other. Answers how many there were.
 */
function dropHairs(inked: Uint8Array, width: number, height: number, thin: number, reach: number): number {
  const { labels, count, areas } = components(inked, width, height);
  const thickness = distanceFrom(
    maskWhere(inked, (x) => x === 0),
    width,
    height,
  );
  const density = blur({ width, height, data: Float32Array.from(inked) }, reach / 2);
  const measures = measure(inked, labels, count, thickness, width, height);
  const around = new Float64Array(count + 1);
  for (let i = 0; i < inked.length; i++) around[labels[i]] += density.data[i];
  const hair = new Uint8Array(count + 1);
  let hairs = 0;
  for (let label = 1; label <= count; label++) {
    const m = measures[label];
    const span = Math.hypot(m.right - m.left, m.bottom - m.top);
    const wide = areas[label] / span;
    // A straight line of this width fills so much of a Gaussian about it.
    const alone = wide / (reach / 2) / Math.sqrt(2 * Math.PI);
    if (m.thick > thin || span < 6 * wide || span < 2 * reach || around[label] / areas[label] > 1.7 * alone) continue;
    hair[label] = 1;
    hairs++;
  }
  if (hairs > 0) for (let i = 0; i < inked.length; i++) if (hair[labels[i]]) inked[i] = 0;
  return hairs;
}

interface Measure {
  left: number;
  top: number;
  right: number;
  bottom: number;
  area: number;
  /** Half of the greatest thickness. */
  thick: number;
  peak: number;
}

/** Eight bands from the top, so that reading order survives marks that stand a little higher than their neighbours. */
const rowOf = (m: Measure, height: number): number => Math.floor(((m.top + m.bottom) / 2 / height) * 8);

/**
 * Deviation of the bare paper: of what lies far under the limit between paper and ink, and within four deviations,
 * found by going round. Ink is clamped at 0, so half of the grain is seen as nothing.
 */
function paperGrain(ink: Picture, limit: number): number {
  let grain = 0.002;
  for (let round = 0; round < 8; round++) {
    const reach = Math.max(limit / 2, 4 * grain);
    let sum = 0;
    let bare = 0;
    for (let i = 0; i < ink.data.length; i++) {
      const v = ink.data[i];
      if (v >= reach) continue;
      sum += v * v;
      bare++;
    }
    const next = bare > 0 ? Math.max(0.002, Math.sqrt((2 * sum) / bare)) : grain;
    if (next < grain * 1.02) return next;
    grain = next;
  }
  return grain;
}

function otsu(ink: Picture): number {
  const BINS = 256;
  const bins = new Float64Array(BINS);
  for (const v of ink.data) bins[Math.max(0, Math.min(BINS - 1, Math.floor(v * BINS)))]++;
  let total = 0;
  let moment = 0;
  for (let b = 0; b < BINS; b++) {
    total += bins[b];
    moment += b * bins[b];
  }
  let below = 0;
  let belowMoment = 0;
  let best = 0;
  let at = BINS / 2;
  for (let b = 0; b < BINS - 1; b++) {
    below += bins[b];
    belowMoment += b * bins[b];
    if (below === 0 || below === total) continue;
    const gap = belowMoment / below - (moment - belowMoment) / (total - below);
    const between = below * (total - below) * gap * gap;
    if (between > best) {
      best = between;
      at = b + 0.5;
    }
  }
  return at / BINS;
}

/** 1 where ink is over `low` and hangs together with ink over `high`. */
function connected(ink: Picture, low: number, high: number): Uint8Array {
  const { width, height, data } = ink;
  const { labels, count } = components(
    maskWhere(data, (v) => v > low),
    width,
    height,
  );
  const dense = new Uint8Array(count + 1);
  for (let i = 0; i < data.length; i++) if (data[i] > high) dense[labels[i]] = 1;
  dense[0] = 0;
  return maskWhere(labels, (l) => dense[l] === 1);
}

/** Labels of components that come within 2 × reach of each other. */
function groups(
  inked: Uint8Array,
  width: number,
  height: number,
  reach: number,
): { labels: Int32Array; count: number } {
  if (reach < 0.5) return components(inked, width, height);
  const distance = distanceFrom(inked, width, height);
  return components(
    maskWhere(distance, (d) => d <= reach),
    width,
    height,
  );
}

function measure(
  inked: Uint8Array,
  labels: Int32Array,
  count: number,
  thickness: Float64Array,
  width: number,
  height: number,
): Measure[] {
  const out: Measure[] = Array.from({ length: count + 1 }, () => ({
    left: width,
    top: height,
    right: 0,
    bottom: 0,
    area: 0,
    thick: 0,
    peak: 1,
  }));
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      if (!inked[at]) continue;
      const m = out[labels[at]];
      if (i < m.left) m.left = i;
      if (i >= m.right) m.right = i + 1;
      if (j < m.top) m.top = j;
      if (j >= m.bottom) m.bottom = j + 1;
      m.area++;
      if (thickness[at] > m.thick) m.thick = thickness[at];
    }
  }
  return out;
}
