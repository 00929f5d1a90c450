/** The mooring stone as a scan with two patches, each cast. */
import { packMesh } from '#core/formats';
import { buildMesh, faceNormal, pick } from '#core/mesh';
import { toUint16, usedRange } from '#core/picture';
import { castPatch, edgeStep, levelNormal, surfaceOf, type Vec3 } from '#core/scan';
import { ringLoss } from '#core/checks';
import {
  ALPHA_VERSION,
  AlphaSchema,
  PatchSchema,
  ScanSchema,
  SOURCE_VERSION,
  StepSchema,
  type Alpha,
  type Patch,
  type Scan,
} from '#core/settings';
import type { DemoMachine } from '../tidewrack';
import { mooringStone } from './mooringStone';

const DENSITY = 170;
/** Millimetres of the stone in one body unit. */
const MM_PER_BODY = 310;
const CAST_SIZE = 512;

export interface DemoScan {
  doc: Scan;
  bytes: Uint8Array;
  /** With the cast that each one's recipe begins with. */
  alphas: { doc: Alpha; bytes: Uint8Array; base: Uint8Array }[];
}

interface Laid {
  name: string;
  /** Where one looks from, and which way. */
  from: Vec3;
  direction: Vec3;
  more: object;
  side: number;
}
const LAID: readonly Laid[] = [
  {
    name: 'Chisel marks',
    from: [-0.28, -0.2, 3],
    direction: [0, 0, -1],
    side: 0.46,
    more: { edge: 'repeat', edgeWidth: 22 },
  },
  { name: 'Sea pits', from: [3, -0.3, 0], direction: [-1, 0, 0], side: 0.36, more: { edge: 'fade', edgeWidth: 14 } },
];

export function scannedStone(
  ids: { scan: string; patches: string[]; steps: string[]; alphas: string[] },
  author: string,
  { hash }: Pick<DemoMachine, 'hash'>,
): DemoScan {
  const stone = mooringStone(DENSITY);
  const mesh = buildMesh(stone);
  const patches = LAID.map(({ name, from, direction, side, more }, i): Patch => {
    const hit = pick(mesh, { origin: from, direction })!;
    const at: Vec3 = [hit.x, hit.y, hit.z];
    const [x, y, z] = levelNormal(mesh, at, faceNormal(mesh, hit.triangle), side * 0.4);
    const laid = PatchSchema.parse({
      id: ids.patches[i],
      name,
      at: { x: at[0], y: at[1], z: at[2] },
      normal: { x, y, z },
      cast: { size: CAST_SIZE, frame: { side } },
      ...more,
    });
    // Floor and crown as the click on “Use the tones” sets them.
    const { used } = castPatch(surfaceOf(mesh, laid), laid);
    return { ...laid, cast: { ...laid.cast, ...used } };
  });
  const bytes = new Uint8Array(packMesh(stone));
  const doc = ScanSchema.parse({
    version: SOURCE_VERSION,
    kind: 'scan',
    id: ids.scan,
    card: { name: 'Mooring stone', author, tags: ['tidewrack'] },
    file: { name: 'mooring stone.ply', what: 'PLY' },
    mesh: hash(bytes),
    vertices: stone.positions.length / 3,
    triangles: stone.triangles.length / 3,
    coloured: true,
    perBody: MM_PER_BODY,
    unit: 'mm',
    patches,
  });
  const alphas = patches.map((patch, i) => {
    const bare = castPatch(surfaceOf(mesh, patch), { ...patch, edge: 'cut' });
    const made = castPatch(surfaceOf(mesh, patch), patch);
    const base = new Uint8Array(toUint16(bare.picture).buffer);
    const own = new Uint8Array(toUint16(made.picture).buffer);
    const format = 'grey16' as const;
    return {
      bytes: own,
      base,
      doc: AlphaSchema.parse({
        version: ALPHA_VERSION,
        id: ids.alphas[i],
        format,
        size: CAST_SIZE,
        relief: made.relief,
        ground: made.ground,
        blob: hash(own),
        card: { name: patch.name, author, tags: ['tidewrack', 'stone'] },
        lineage: {
          sourceId: ids.scan,
          sourceRevision: 1,
          floor: made.floor,
          crown: made.crown,
          cast: patch.cast,
          patchId: patch.id,
        },
        recipe: {
          base: { kind: 'cast', blob: hash(base), format, size: CAST_SIZE },
          steps: [StepSchema.parse({ ...edgeStep(patch)!, id: ids.steps[i] })],
        },
        report: {
          marginPx: made.margin.marginPx,
          ringLoss: ringLoss(made.picture, 1, made.ground),
          usedRange: usedRange(made.picture),
          undercut: made.undercut.share,
        },
      }),
    };
  });
  return { doc, bytes, alphas };
}
