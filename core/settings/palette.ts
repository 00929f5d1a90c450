/** A palette: colours chosen by hand, named, ordered and in groups. */
import { z } from 'zod';
import { CardSchema } from './card';
import { HexSchema } from './colour';

export const PALETTE_VERSION = 1;
export const MOST_PALETTE_COLOURS = 512;
export const MOST_PALETTE_GROUPS = 32;

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
      .max(MOST_PALETTE_GROUPS, `A palette has at most ${MOST_PALETTE_GROUPS} groups.`),
  })
  .refine(
    ({ groups }) => groups.reduce((sum, { colours }) => sum + colours.length, 0) <= MOST_PALETTE_COLOURS,
    `A palette takes ${MOST_PALETTE_COLOURS} colours at most.`,
  );
export type OwnPalette = z.infer<typeof PaletteSchema>;

export function newPalette(
  id: string,
  name: string,
  colours: readonly (OwnPalette['groups'][number]['colours'][number] & { group?: string | undefined })[] = [],
): OwnPalette {
  const names = [...new Set(colours.map(({ group = '' }) => group))];
  const groups = (names.length > 0 ? names : ['']).map((group) => ({
    name: group,
    colours: colours.filter((one) => (one.group ?? '') === group),
  }));
  return PaletteSchema.parse({ version: PALETTE_VERSION, id, card: { name }, groups });
}
