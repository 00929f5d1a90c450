/**
 * The last undo steps of a slab as bytes, so that they can be taken back after it was closed.
 *
 * "MSHI", version, count of steps; then for each, oldest first: count of leaves, 1 when masks follow, the leaves'
 * numbers, 768 float32 of places and, where they follow, 256 float32 of masks a leaf. Words are little-endian 32-bit.
 */
import { LEAF, type Before, type Mesh } from '#core/mesh';
import type { Step } from '#core/session';
import type { Done } from '#core/timeline';

const MAGIC = 0x4948534d;
const VERSION = 1;

/** The newest steps that fit into `limit` bytes; null when there is none. */
export function packHistory(done: readonly Done<Step>[], limit: number): Uint8Array<ArrayBuffer> | null {
  const steps: Before[] = [];
  let words = 3;
  for (let i = done.length - 1; i >= 0; i--) {
    const changes = done[i].before;
    // Another level is another mesh; what changed beside the clay isn't kept.
    if (!changes || changes.some(({ kind }) => kind === 'mesh')) break;
    const before = changes.find((change) => change.kind === 'leaves')?.leaves;
    if (!before) continue;
    const more = 2 + before.leaves.length + before.positions.length + (before.mask?.length ?? 0);
    if ((words + more) * 4 > limit) break;
    words += more;
    steps.unshift(before);
  }
  if (steps.length === 0) return null;
  const out = new Uint32Array(words);
  const floats = new Float32Array(out.buffer);
  out.set([MAGIC, VERSION, steps.length]);
  let at = 3;
  for (const { leaves, positions, mask } of steps) {
    out.set([leaves.length, mask ? 1 : 0], at);
    out.set(leaves, at + 2);
    at += 2 + leaves.length;
    floats.set(positions, at);
    at += positions.length;
    if (mask) floats.set(mask, at);
    at += mask?.length ?? 0;
  }
  return new Uint8Array(out.buffer);
}

/** Throws a sentence when the bytes are no history of this mesh. */
export function readHistory(bytes: ArrayBuffer, mesh: Mesh): Before[] {
  const broken = (why: string): Error => new Error(`The slab’s kept undo steps can’t be read: ${why}.`);
  if (bytes.byteLength % 4 !== 0 || bytes.byteLength < 12) throw broken('they are cut short');
  const words = new Uint32Array(bytes);
  const floats = new Float32Array(bytes);
  if (words[0] !== MAGIC) throw broken('they are something else');
  if (words[1] !== VERSION) throw broken(`they are of version ${words[1]}`);
  const out: Before[] = [];
  let at = 3;
  for (let step = 0; step < words[2]; step++) {
    const count = words[at];
    const masked = words[at + 1] === 1;
    const end = at + 2 + count + count * LEAF * (masked ? 4 : 3);
    if (!(end <= words.length)) throw broken('they are cut short');
    const leaves = words.slice(at + 2, at + 2 + count);
    if (leaves.some((leaf) => leaf >= mesh.leafCount)) throw broken('they are of another slab');
    const places = at + 2 + count;
    const positions = floats.slice(places, places + count * LEAF * 3);
    if (positions.some((x) => x - x !== 0)) throw broken('a place is not a number');
    out.push({ leaves, positions, mask: masked ? floats.slice(places + count * LEAF * 3, end) : null });
    at = end;
  }
  return out;
}
