/** mesh_open_s_per_million, patch_s and scan_bytes_mb: a scan from its file to the page, a patch of it, its memory. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { body, buildMesh, centred, type RawMesh } from '#core/mesh';
import { castPatch, castPatchVector, scanReport, surfaceOf, withoutBroken } from '#core/scan';
import { farthest, mushroom, MUSHROOM_HEIGHT, stampedSheet } from '../core/scan/testMushroom';
import { PatchSchema } from '#core/settings';
import { joinedMesh } from '../web/workers/joinedMesh';
import { time, type Figure } from './measure';

/** 1.05 million triangles. */
const DENSITY = 296;

/** A stone as a binary STL: every triangle with corners of its own. */
function stl({ positions, triangles }: RawMesh): ArrayBuffer {
  const count = triangles.length / 3;
  const out = new DataView(new ArrayBuffer(84 + count * 50));
  out.setUint32(80, count, true);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 9; k++)
      out.setFloat32(84 + t * 50 + 12 + k * 4, positions[triangles[t * 3 + Math.floor(k / 3)] * 3 + (k % 3)], true);
  }
  return out.buffer;
}

function opened(bytes: ArrayBuffer): { raw: RawMesh; bytes: number } {
  const { mesh } = withoutBroken(joinedMesh([{ geometry: new STLLoader().parse(bytes), name: '', materials: [] }]));
  const { mesh: raw } = centred(mesh, 0);
  const laid = buildMesh(raw, { ringless: true });
  return { raw, bytes: laid.buffer.byteLength };
}

/** Seconds of `assimp info` on the same bytes, from Debian's assimp-utils; null where that isn't installed. */
function assimp(bytes: ArrayBuffer): number | null {
  const folder = mkdtempSync(join(tmpdir(), 'mold-stamp-bench-'));
  try {
    const path = join(folder, 'stone.stl');
    writeFileSync(path, new Uint8Array(bytes));
    const run = (): boolean => spawnSync('assimp', ['info', path], { stdio: 'ignore' }).status === 0;
    return run() ? time(3, 0, run) / 1000 : null;
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** A mushroom of 2 × 960² triangles as vectors, its time and what comes of it on a sheet of 400². */
async function overhang(): Promise<Figure> {
  const form = mushroom(960);
  const mesh = buildMesh(form, { ringless: true });
  const patch = PatchSchema.parse({
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Patch',
    at: { x: 0, y: 0, z: 0 },
    normal: { x: 0, y: 0, z: 1 },
    detrend: { kind: 'none' },
    cast: { size: 1024, samples: 1, frame: { side: 2 } },
  });
  const cut = time(1, 0, () => surfaceOf(mesh, patch)) / 1000;
  const began = performance.now();
  const { offsets, folded } = await castPatchVector(mesh, patch);
  const seconds = (performance.now() - began) / 1000;
  const stamped = stampedSheet(offsets, 1024, 400);
  const off = Math.max(farthest(stamped, form, 5), farthest(form, stamped, 60)) / MUSHROOM_HEIGHT;
  return {
    key: 'vector_patch_s',
    what: `1.84 M triangles of a mushroom as vectors; stamped on a sheet of 400² it is ${(off * 100).toFixed(2)} % of its height off at most, ${folded} faces over others`,
    value: seconds,
    unit: 's',
    floor: { what: 'its surface cut out alone', value: cut },
    target: { text: '≤ 30, and 1 % off', met: seconds <= 30 && off <= 0.01 && folded === 0 },
  };
}

export async function scanFigures(): Promise<Figure[]> {
  const bytes = stl(body('stone', DENSITY));
  const millions = (bytes.byteLength - 84) / 50 / 1e6;
  let last = opened(bytes);
  const open = time(3, 0, () => (last = opened(bytes))) / 1000 / millions;
  const parse = time(3, 1, () => new STLLoader().parse(bytes)) / 1000 / millions;
  const other = assimp(bytes);
  const report = time(2, 0, () => scanReport(last.raw)) / 1000 / millions;
  const mesh = buildMesh(last.raw);
  const patch = PatchSchema.parse({
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Patch',
    at: { x: 0, y: 0, z: 0.8 },
    normal: { x: 0, y: 0, z: 1 },
    cast: { size: 2048, samples: 1, frame: { side: 0.8 } },
  });
  const cut = time(3, 1, () => surfaceOf(mesh, patch)) / 1000;
  const whole = time(3, 1, () => castPatch(surfaceOf(mesh, patch), patch)) / 1000;
  // What is held while a scan is open: the laid out mesh, and its file as it is kept.
  const held = (last.bytes + last.raw.positions.byteLength + last.raw.triangles.byteLength) / 2 ** 20;
  const fiveMillion = (held / millions) * 5;
  return [
    await overhang(),
    {
      key: 'mesh_open_s_per_million',
      what: `${millions.toFixed(2)} M triangles of binary STL parsed, welded and laid out; the report takes ${report.toFixed(2)} s a million more, after it is seen; ${other === null ? 'assimp-utils isn’t installed' : `\`assimp info\` on the same file takes ${(other / millions).toFixed(2)} s a million`}`,
      value: open,
      unit: 's',
      floor: { what: 'a plain parse of the same bytes', value: parse },
      target: { text: '≤ 1.2', met: open <= 1.2 },
    },
    {
      key: 'patch_s',
      what: 'a patch of it, 0.8 of 2, cut out, detrended, filled and checked at 2048²',
      value: whole,
      unit: 's',
      floor: { what: 'its surface cut out alone', value: cut },
      target: { text: '≤ 2', met: whole <= 2 },
    },
    {
      key: 'scan_mb_5m',
      what: 'memory of an open scan of 5 M triangles, from what this one takes',
      value: fiveMillion,
      unit: 'MB',
      floor: { what: 'its file as it is kept', value: (fiveMillion / held) * (held - last.bytes / 2 ** 20) },
      target: { text: '≤ 600', met: fiveMillion <= 600 },
    },
  ];
}
