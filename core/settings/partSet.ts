/** The parts that a brush sets down, and which of them comes next. */
import { z } from 'zod';
import { setting } from './setting';

export const PART_ORDERS = ['sequence', 'random', 'chosen'] as const;
export type PartOrder = (typeof PART_ORDERS)[number];
export const MOST_PARTS = 64;

export const PartEntrySchema = z.object({
  partId: z.uuid(),
  scale: setting({
    label: 'Scale',
    unit: '%',
    min: 5,
    max: 400,
    step: 1,
    fallback: 100,
    scale: 'log',
    help: 'Its size beside the others of the set',
  }),
  sink: setting({
    label: 'Sink',
    unit: '%',
    min: -100,
    max: 100,
    step: 1,
    fallback: 0,
    help: 'How much deeper it sits than its seat says, in per cent of its height',
  }),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns it about its up, anticlockwise',
  }),
  chance: setting({
    label: 'Chance',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 100,
    help: 'At random: how often it comes, beside the others',
  }),
});
export type PartEntry = z.infer<typeof PartEntrySchema>;

const atPlace = () =>
  z
    .int()
    .min(0)
    .max(MOST_PARTS - 1)
    .nullable()
    .default(null);

export const PartSetSchema = z.object({
  entries: z.array(PartEntrySchema).max(MOST_PARTS, `At most ${MOST_PARTS} parts a brush.`).default([]),
  order: z.enum(PART_ORDERS).default('sequence'),
  /** The one that is set down, where they are chosen by hand. */
  chosen: setting({
    label: 'Chosen part',
    unit: '',
    min: 0,
    max: MOST_PARTS - 1,
    step: 1,
    fallback: 0,
    help: 'Place in the set, from 0, of the part that is set down alone',
  }),
  /** Place in the set of what stands at the ends of a path, and at its corners; null leaves them to the order. */
  ends: atPlace(),
  corners: atPlace(),
});
export type PartSet = z.infer<typeof PartSetSchema>;

/**
 * The set with its entries in another order, some left out or there twice: `from` names each by its place before. What
 * pointed at one that is gone points at none.
 */
export function rearranged(set: PartSet, from: readonly number[]): PartSet {
  const to = (at: number | null): number | null => {
    const place = at === null ? -1 : from.indexOf(at);
    return place < 0 ? null : place;
  };
  return {
    ...set,
    entries: from.map((at) => ({ ...set.entries[at] })),
    chosen: to(set.chosen) ?? Math.max(0, Math.min(set.chosen, from.length - 1)),
    ends: to(set.ends),
    corners: to(set.corners),
  };
}

/** As many of these as there is room for; the last one is the one in hand then. */
export function addParts(set: PartSet, ids: readonly string[]): void {
  set.entries.push(...ids.slice(0, MOST_PARTS - set.entries.length).map((partId) => PartEntrySchema.parse({ partId })));
  set.chosen = Math.max(0, set.entries.length - 1);
}
