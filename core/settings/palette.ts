/** A palette: colours chosen by hand, named, ordered and in groups. */
import { z } from 'zod';
import { CardSchema } from './card';
import { HexSchema } from './colour';

export const PALETTE_VERSION = 1;
export const MOST_PALETTE_COLOURS = 512;

const PaletteColourSchema = z.object({ colour: HexSchema, name: z.string().trim().max(80).default('') });

export const PaletteSchema = z
  .object({
    version: z.literal(PALETTE_VERSION),
    id: z.uuid(),
    card: CardSchema,
    /** The first has no name where there is only one. */
    groups: z
      .array(z.object({ name: z.string().trim().max(80), colours: z.array(PaletteColourSchema) }))
      .min(1, 'A palette has a group at least.')
      .max(32, 'A palette has at most 32 groups.'),
  })
  .refine(
    ({ groups }) => groups.reduce((sum, { colours }) => sum + colours.length, 0) <= MOST_PALETTE_COLOURS,
    `A palette takes ${MOST_PALETTE_COLOURS} colours at most.`,
  );
export type OwnPalette = z.infer<typeof PaletteSchema>;

export function newPalette(
  id: string,
  name: string,
  colours: OwnPalette['groups'][number]['colours'] = [],
): OwnPalette {
  return PaletteSchema.parse({ version: PALETTE_VERSION, id, card: { name }, groups: [{ name: '', colours }] });
}
