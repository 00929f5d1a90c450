/** Name and credit of anything that is kept. */
import { z } from 'zod';

export const NameSchema = z
  .string()
  .trim()
  .min(1, 'A name is needed, so that this can be found again.')
  .max(80, 'A name may have at most 80 characters.');

export const CardSchema = z.object({
  name: NameSchema,
  author: z.string().trim().max(120, 'An author may have at most 120 characters.').default(''),
  tags: z
    .array(z.string().trim().min(1).max(40, 'A tag may have at most 40 characters.'))
    .max(24, 'At most 24 tags.')
    .default([]),
  notes: z.string().max(4000, 'Notes may have at most 4000 characters.').default(''),
});
export type Card = z.infer<typeof CardSchema>;
