/** A light mesh that a brush sets down: what it was made from, its budget of faces, its seat and its real size. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';
import { setting } from './setting';

export const PART_VERSION = 1;

export const BUDGET_METHODS = ['shape', 'even'] as const;
export type BudgetMethod = (typeof BUDGET_METHODS)[number];
export const LEAST_FACES = 12;
export const MOST_FACES = 50_000;

export const BudgetSchema = z.object({
  way: z.enum(BUDGET_METHODS).default('shape'),
  faces: setting({
    label: 'Faces',
    unit: '',
    min: LEAST_FACES,
    max: MOST_FACES,
    step: 1,
    fallback: 500,
    scale: 'log',
    help: 'The part is brought down to no more faces than this',
  }),
});
export type Budget = z.infer<typeof BudgetSchema>;

const coordinate = z.number().min(-1e4).max(1e4);
const VectorSchema = z.object({ x: coordinate, y: coordinate, z: coordinate });

export const PART_BASES = ['flat', 'bent'] as const;
export type PartBase = (typeof PART_BASES)[number];

export const PartSeatSchema = z.object({
  /** Unit vectors square to each other, in the part's own coordinates. */
  up: VectorSchema.default({ x: 0, y: 0, z: 1 }),
  forward: VectorSchema.default({ x: 0, y: 1, z: 0 }),
  /** The point that lies on the surface. */
  rest: VectorSchema.default({ x: 0, y: 0, z: 0 }),
  /** Its base stays as it is, or is bent so that it follows the surface. */
  base: z.enum(PART_BASES).default('flat'),
  sink: setting({
    label: 'Sink',
    unit: '%',
    min: -100,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'How deep it sits in the surface, in per cent of its height; below zero it floats',
  }),
  scale: setting({
    label: 'Scale',
    unit: '%',
    min: 5,
    max: 2000,
    step: 1,
    fallback: 100,
    scale: 'log',
    help: 'Its size where it is set down, beside the brush’s own',
  }),
});
export type PartSeat = z.infer<typeof PartSeatSchema>;

/** What a part was captured from. */
export const PART_ORIGINS = ['file', 'scan', 'component', 'region', 'cut', 'slab'] as const;
export type PartOrigin = (typeof PART_ORIGINS)[number];

const count = z.number().int().min(0);
const share = z.number().min(0).max(1e6);

export const PartSchema = z.object({
  version: z.literal(PART_VERSION),
  id: z.uuid(),
  card: CardSchema,
  made: z.object({
    from: z.enum(PART_ORIGINS),
    /** The source that it was captured from; null where there is none. */
    sourceId: z.uuid().nullable().default(null),
    sourceRevision: count.nullable().default(null),
  }),
  /** As it was captured, so that it can be brought down to another budget. */
  whole: BlobHashSchema,
  wholeTriangles: count.min(1, 'A part has faces.'),
  budget: BudgetSchema.prefault({}),
  /** As it is set down. */
  mesh: BlobHashSchema,
  triangles: count.min(1, 'A part has faces.'),
  /** How far the mesh lies from the whole, per cent of its size. */
  error: z.object({ largest: share, mean: share }).default({ largest: 0, mean: 0 }),
  seat: PartSeatSchema.prefault({}),
  /** Of one unit of its mesh in the world. */
  millimetres: z.number().positive('A part needs a size.').max(1e9).default(50),
});
export type Part = z.infer<typeof PartSchema>;
