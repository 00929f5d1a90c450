/** Everything a stroke needs, as one versioned object. */
import { z } from 'zod';
import { CardSchema } from './card';
import { ColourSchema } from './colour';
import { DriftSchema } from './drift';
import { FormSchema } from './form';
import { PartSetSchema } from './partSet';
import { PenSchema } from './pen';
import type { Migration } from './read';
import { StrokeSettingsSchema } from './strokeSettings';
import { ToothSchema } from './tooth';
import { ThumbnailSchema } from './thumbnail';
import { PAINT_ACTIONS, TouchSchema } from './touch';

export const BRUSH_VERSION = 4;

type Parts = Record<string, Record<string, unknown> | undefined>;

/**
 * Version 2 added actions, steady and pen, all of which have defaults. Version 3 put scatter among the drift, gave the
 * pen a curve and two limits for each link, and made Even the default: what had no word for overlaps added up.
 * Version 4 added the look of its picture, which has defaults.
 */
export const BRUSH_MIGRATIONS: Record<number, Migration> = {
  1: (doc) => doc,
  2: (doc) => {
    const { stroke = {}, pen = {}, touch = {} } = doc as Parts;
    const { scatter = 0, ...kept } = stroke;
    return {
      ...doc,
      stroke: kept,
      touch: { overlaps: 'add', ...touch },
      drift: { along: scatter, across: scatter },
      pen: { pressureSize: { low: pen['sizeLow'] ?? 100 }, pressureStrength: { low: pen['strengthLow'] ?? 100 } },
    };
  },
  3: (doc) => doc,
};

export const BrushSchema = z.object({
  version: z.literal(BRUSH_VERSION),
  id: z.uuid(),
  form: FormSchema.prefault({}),
  touch: TouchSchema.prefault({}),
  stroke: StrokeSettingsSchema.prefault({}),
  drift: DriftSchema.prefault({}),
  pen: PenSchema.prefault({}),
  tooth: ToothSchema.prefault({}),
  colour: ColourSchema.prefault({}),
  parts: PartSetSchema.prefault({}),
  thumbnail: ThumbnailSchema.prefault({}),
  card: CardSchema,
});
export type Brush = z.infer<typeof BrushSchema>;
export type Action = Brush['touch']['action'];
export type StrokeType = Brush['stroke']['type'];
export type Mapping = Brush['stroke']['mapping'];
export type Direction = Brush['touch']['direction'];

/** What of a brush names alphas. */
export interface Naming {
  form: { alphaId: string | null };
  tooth: { alphaId: string | null };
  parts?: { entries: readonly { partId: string }[] };
}

/** The alphas that a brush reads: its form's and its tooth's. */
export function alphasOf(brush: Naming): string[] {
  return [brush.form.alphaId, brush.tooth.alphaId].filter((id) => id !== null);
}

/** Whether it sets parts down, and leaves the clay. */
export function setsParts({ touch }: { touch: Pick<Brush['touch'], 'action'> }): boolean {
  return touch.action === 'insert';
}

/** Whether it changes the texture, and leaves the clay. */
export function paintsOnly({ touch }: { touch: Pick<Brush['touch'], 'action'> }): boolean {
  return (PAINT_ACTIONS as readonly string[]).includes(touch.action);
}

/** Whether it changes the texture; a brush that sculpts may do both. */
export function paints(brush: Pick<Brush, 'touch' | 'colour'>): boolean {
  return paintsOnly(brush) || (brush.colour.too && !setsParts(brush) && brush.touch.action !== 'mask');
}

/** What a brush does, as text: two brushes of the same text stamp alike, whatever they are called. */
export function worksOf({ form, touch, stroke, drift, pen, tooth, colour, parts }: Brush): string {
  return JSON.stringify([form, touch, stroke, drift, pen, tooth, colour, parts]);
}

export function newBrush(id: string, name: string, author = ''): Brush {
  return BrushSchema.parse({ version: BRUSH_VERSION, id, card: { name, author } });
}
