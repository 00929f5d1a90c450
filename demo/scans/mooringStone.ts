/** The mooring stone: a weathered post with a groove worn by ropes, dressed with a point chisel on one side. */
import { stone, type RawMesh } from '#core/mesh';
import { layeredNoise, noise2, seeded } from '#core/random';

/** Height of the groove over the middle, and half its width. */
const GROOVE = { at: 0.34, half: 0.17, deep: 0.16 };
/** Under the line of high water weed grows. */
const HIGH_WATER = -0.35;

/** About 6 density² vertices with their colours; the largest extent is 2. */
export function mooringStone(density: number): RawMesh & { colours: Uint8Array } {
  const { positions, triangles } = stone(density);
  const colours = new Uint8Array(positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const length = Math.hypot(positions[i], positions[i + 1], positions[i + 2]);
    const n = [positions[i] / length, positions[i + 1] / length, positions[i + 2] / length] as const;
    const worn = groove(positions[i + 1]);
    const marks = chiselled(positions[i], positions[i + 1], n);
    const grain = around(positions, i, n, 9, 3, 5);
    const pits = Math.max(0, around(positions, i, n, 17, 41, 2) - 0.28);
    const reach = 1 - worn + 0.016 * grain + 0.04 * marks.height - 0.1 * pits * (1 - marks.share);
    positions[i] *= reach * 0.82;
    positions[i + 1] *= 1.24;
    positions[i + 2] *= reach * 0.82;
    paint(colours, i, {
      grain,
      pits,
      y: positions[i + 1],
      worn: worn / GROOVE.deep,
      lichen: around(positions, i, n, 2.2, 77, 4),
    });
  }
  return { positions: fitted(positions), triangles, colours };
}

function groove(y: number): number {
  const d = (y - GROOVE.at) / GROOVE.half;
  return Math.abs(d) < 1 ? GROOVE.deep * (1 - d * d) ** 2 : 0;
}

/** Rows of short strokes across the front, each a little off the last, fading out towards the other sides. */
function chiselled(x: number, y: number, n: readonly [number, number, number]): { height: number; share: number } {
  const share = smooth((n[2] - 0.3) / 0.25) * smooth((Math.abs(y - GROOVE.at) - GROOVE.half) / 0.08);
  if (share === 0) return { height: 0, share };
  const row = (y * 0.9 + x * 0.42) * 9 + 0.3 * noise2(x * 3, y * 3, 5);
  const furrow = 0.5 - 0.5 * Math.cos(row * Math.PI * 2);
  const along = (x * 0.9 - y * 0.42) * 4.2 + 1.5 * noise2(Math.round(row) * 0.77 + 0.3, 3.1, 9);
  const stroke = 0.5 + 0.5 * Math.cos(along * Math.PI * 2);
  return { height: share * (furrow - 0.5) * (0.35 + 0.65 * stroke), share };
}

function smooth(t: number): number {
  const x = Math.max(0, Math.min(1, t));
  return x * x * (3 - 2 * x);
}

/** A plane that counts for less than this isn't asked. */
const LEAST_SHARE = 0.02;

/** Layered noise over three planes, blended by how the surface lies. */
function around(
  p: Float32Array,
  i: number,
  n: readonly [number, number, number],
  scale: number,
  seed: number,
  octaves: number,
): number {
  const w = n.map((c) => c ** 4);
  const sum = w[0] + w[1] + w[2];
  let noise = 0;
  for (let k = 0; k < 3; k++) {
    if (w[k] < LEAST_SHARE * sum) continue;
    noise += w[k] * layeredNoise(p[i + ((k + 1) % 3)] * scale, p[i + ((k + 2) % 3)] * scale, seed + k, octaves);
  }
  return noise / sum;
}

interface Weather {
  grain: number;
  pits: number;
  y: number;
  worn: number;
  lichen: number;
}

function paint(colours: Uint8Array, i: number, { grain, pits, y, worn, lichen }: Weather): void {
  const tone = 128 + 46 * grain - 160 * pits + 26 * worn;
  const weed = Math.max(0, Math.min(1, (HIGH_WATER - y) / 0.3 + 0.8 * lichen));
  const crust = y > HIGH_WATER && lichen > 0.22 ? Math.min(1, (lichen - 0.22) * 6) : 0;
  const stoneColour = [tone * 1.02, tone * 0.99, tone * 0.93];
  const weedColour = [52 + tone * 0.16, 66 + tone * 0.22, 40 + tone * 0.1];
  const crustColour = [176 + 30 * grain, 160 + 30 * grain, 92];
  for (let k = 0; k < 3; k++) {
    const wet = stoneColour[k] + (weedColour[k] - stoneColour[k]) * weed;
    colours[i + k] = Math.max(0, Math.min(255, wet + (crustColour[k] - wet) * crust));
  }
}

/** In the middle, its largest extent 2. */
function fitted(p: Float32Array): Float32Array {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i++) {
    low[i % 3] = Math.min(low[i % 3], p[i]);
    high[i % 3] = Math.max(high[i % 3], p[i]);
  }
  const size = Math.max(...high.map((h, k) => h - low[k]));
  return p.map((x, i) => ((x - (low[i % 3] + high[i % 3]) / 2) * 2) / size);
}

/**
 * As a 3D scanner would bring it: every point a little off, a hole where the light didn't reach, bits of the table, in
 * millimetres.
 */
export function asScanned(
  { positions, triangles, colours }: RawMesh & { colours: Uint8Array },
  seed: number,
): RawMesh & { colours: Uint8Array } {
  const random = seeded(seed);
  const places = positions.map((x) => (x + (random() - 0.5) * 0.0025) * 310);
  const hole = [-0.42, -0.5, 0.38];
  const faces: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    let off = 0;
    for (let k = 0; k < 3; k++) off += (positions[triangles[t] * 3 + k] - hole[k]) ** 2;
    if (off > 0.11 ** 2) faces.push(triangles[t], triangles[t + 1], triangles[t + 2]);
  }
  const bits = 60;
  const out = new Float32Array(places.length + bits * 9);
  out.set(places);
  const tints = new Uint8Array(out.length).fill(70);
  tints.set(colours);
  for (let b = 0; b < bits; b++) {
    const middle = [(random() - 0.5) * 700, -300 - random() * 20, (random() - 0.5) * 700];
    for (let k = 0; k < 9; k++) out[places.length + b * 9 + k] = middle[k % 3] + (random() - 0.5) * 9;
    const first = places.length / 3 + b * 3;
    faces.push(first, first + 1, first + 2);
  }
  return { positions: out, triangles: Uint32Array.from(faces), colours: tints };
}

/** A binary PLY with colours. */
export function asPly({ positions, triangles, colours }: RawMesh & { colours: Uint8Array }): Uint8Array {
  const vertices = positions.length / 3;
  const count = triangles.length / 3;
  const head = new TextEncoder().encode(
    [
      'ply',
      'format binary_little_endian 1.0',
      `element vertex ${vertices}`,
      ...['x', 'y', 'z'].map((axis) => `property float ${axis}`),
      ...['red', 'green', 'blue'].map((channel) => `property uchar ${channel}`),
      `element face ${count}`,
      'property list uchar int vertex_indices',
      'end_header\n',
    ].join('\n'),
  );
  const out = new Uint8Array(head.length + vertices * 15 + count * 13);
  out.set(head);
  const view = new DataView(out.buffer);
  let at = head.length;
  for (let v = 0; v < vertices; v++) {
    for (let k = 0; k < 3; k++) view.setFloat32(at + k * 4, positions[v * 3 + k], true);
    out.set(colours.subarray(v * 3, v * 3 + 3), at + 12);
    at += 15;
  }
  for (let t = 0; t < count; t++) {
    out[at] = 3;
    for (let k = 0; k < 3; k++) view.setInt32(at + 1 + k * 4, triangles[t * 3 + k], true);
    at += 13;
  }
  return out;
}
