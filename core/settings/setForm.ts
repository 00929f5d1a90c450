/** Set forms: primitives and parts laid onto a slab as movable set forms until they are baked into the clay. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { setting } from './setting';

export const SET_FORMS = ['dome', 'disc', 'ring', 'hex', 'pin', 'bar', 'wedge', 'part'] as const;
export const SET_FORM_SIDES = ['raised', 'sunk'] as const;
export const SET_FORM_REPEATS = ['one', 'row', 'ring'] as const;

/** Which way of the part's own axes points up out of the clay. */
export const PART_UPS = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type PartUp = (typeof PART_UPS)[number];
/** Heights of a part seen from above are kept in a square of so many a side. */
export const PART_CELLS = 256;

export const SetFormPartSchema = z.object({
  name: z.string().min(1).max(120),
  /** The mesh: little-endian uint32 count of vertices, their float32 x, y, z, then uint32 triangles. */
  mesh: BlobHashSchema,
  up: z.enum(PART_UPS),
  /** PART_CELLS² float32 heights from above, 0–1, first row at the top; 0 where there is nothing. */
  heights: BlobHashSchema,
});

export const SetFormSchema = z.object({
  id: z.uuid(),
  form: z.enum(SET_FORMS),
  /** Middle of the set form, of its row or of its ring, body units. */
  x: z.number().min(-4).max(4).default(0),
  y: z.number().min(-4).max(4).default(0),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the form, anticlockwise',
  }),
  size: setting({
    label: 'Size',
    unit: 'body',
    min: 0.005,
    max: 1.5,
    step: 0.001,
    fallback: 0.2,
    scale: 'log',
    help: 'Radius, or half the length, in body units',
  }),
  width: setting({
    label: 'Width',
    unit: '%',
    min: 2,
    max: 100,
    step: 1,
    fallback: 40,
    help: 'Width of a bar or wedge, or of a ring’s band, in per cent of its size',
  }),
  height: setting({
    label: 'Height',
    unit: 'body',
    min: 0.001,
    max: 1,
    step: 0.001,
    fallback: 0.06,
    scale: 'log',
    help: 'Height over the clay, in body units',
  }),
  edge: setting({
    label: 'Edge',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 20,
    help: 'Rounding of the upper edge, in per cent of the height',
  }),
  /** Of the form “part”. */
  part: SetFormPartSchema.nullable().default(null),
  set: z.enum(SET_FORM_SIDES).default('raised'),
  repeat: z.enum(SET_FORM_REPEATS).default('one'),
  count: setting({
    label: 'Count',
    unit: '',
    min: 2,
    max: 64,
    step: 1,
    fallback: 6,
    help: 'How many stand in the row or ring',
  }),
  pitch: setting({
    label: 'Pitch',
    unit: 'body',
    min: 0.01,
    max: 2,
    step: 0.001,
    fallback: 0.5,
    scale: 'log',
    help: 'From form to form in a row, or the radius of the ring, in body units',
  }),
});
export type SetForm = z.infer<typeof SetFormSchema>;
export type SetFormShape = SetForm['form'];
export type SetFormPart = z.infer<typeof SetFormPartSchema>;
