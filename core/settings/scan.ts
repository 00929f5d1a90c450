/** A mesh from a 3D scanner or another program, and the windows of it that are cast. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CastSettingsSchema } from './frame';
import { setting } from './setting';

/** What a number in a scan's file may mean, and how many millimetres it is. */
export const SCAN_UNITS = ['µm', 'mm', 'cm', 'in', 'm'] as const;
export type ScanUnit = (typeof SCAN_UNITS)[number];
export const MILLIMETRES: Record<ScanUnit, number> = { µm: 0.001, mm: 1, cm: 10, in: 25.4, m: 1000 };

export const MOST_PATCHES = 40;

const place = z.number().min(-8).max(8);
const Vector = z.object({ x: place, y: place, z: place });

export const DETRENDS = ['none', 'plane', 'quadratic', 'cubic', 'gaussian'] as const;
export type DetrendKind = (typeof DETRENDS)[number];

export const DetrendSchema = z.object({
  kind: z.enum(DETRENDS).default('quadratic'),
  width: setting({
    label: 'Width',
    unit: '%',
    min: 4,
    max: 60,
    step: 1,
    fallback: 20,
    help: 'What is wider than this counts as the overall shape, in per cent of the frame',
  }),
  strength: setting({
    label: 'Strength',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 100,
    help: 'How much of the overall shape is taken out',
  }),
});
export type Detrend = z.infer<typeof DetrendSchema>;

export const PATCH_EDGES = ['cut', 'fade', 'repeat'] as const;

/** Of the frame, `turn` and `side` count: where it lies is said by `at` and `normal`. */
export const PatchSchema = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'A patch needs a name.').max(60),
  /** The frame's centre on the scan, body units. */
  at: Vector,
  /** Unit vector out of the surface. */
  normal: Vector,
  cast: CastSettingsSchema.prefault({ frame: { side: 0.5 } }),
  detrend: DetrendSchema.prefault({}),
  /** What becomes of its sides: cut as they are, faded to the ground inside the ring, or blended so that it repeats. */
  edge: z.enum(PATCH_EDGES).default('cut'),
  /** The colours of the scan are cast beside the heights, where it has any. */
  colours: z.boolean().default(true),
  edgeWidth: setting({
    label: 'Edge width',
    unit: '%',
    min: 2,
    max: 45,
    step: 1,
    fallback: 18,
    help: 'How wide the fade is, or how much of each side is blended into the other',
  }),
});
export type Patch = z.infer<typeof PatchSchema>;

const count = z.number().int().min(0);

export const ScanFields = {
  kind: z.literal('scan'),
  file: z.object({
    name: z.string().max(200),
    /** E.g. "PLY". */
    what: z.string().max(40),
    /** Triangles that named a broken vertex and were left out when it was read. */
    broken: count.default(0),
  }),
  /** The mesh as core/formats packs it, in the middle and of about the plain ball's size. */
  mesh: BlobHashSchema,
  vertices: count,
  triangles: count.min(1, 'A scan has triangles.'),
  coloured: z.boolean().default(false),
  /** Units of the file in one body unit. */
  perBody: z.number().positive().max(1e15),
  unit: z.enum(SCAN_UNITS).default('mm'),
  patches: z.array(PatchSchema).max(MOST_PATCHES, `At most ${MOST_PATCHES} patches a scan.`).default([]),
};
