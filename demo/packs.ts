/** The packs of the wharf: its brushes by what they are for. */
import { PackSchema, PACK_VERSION, type Brush, type Pack } from '#core/settings';

const SITE = 'tidewrack.example';

export function wharfPacks(id: (n: number) => string, author: string, set: Record<Group, readonly Brush[]>): Pack[] {
  const pack = (
    n: number,
    name: string,
    notes: string,
    groups: readonly (readonly [string, readonly Brush[]])[],
  ): Pack =>
    PackSchema.parse({
      version: PACK_VERSION,
      id: id(n),
      card: { name, author, tags: ['tidewrack'], notes },
      site: SITE,
      licence: 'CC-BY-4.0',
      groups: groups.map(([group, brushes]) => ({ name: group, brushes: brushes.map((brush) => brush.id) })),
    });
  return [
    pack(0, 'Harbour crusts', 'Barnacles, limpets, sponge and worn stone, for whatever stands in the tide.', [
      ['Growth', set.crusts],
      ['Marks and stone', set.marks],
    ]),
    pack(1, 'Wharf fittings', 'Mussels, cleats and trenails that are set down as light mesh parts.', [
      ['', set.fittings],
    ]),
    pack(2, 'Wharf paint', 'Brushes for the painted bodies: grounds, glazes, salt and stencils.', [['', set.paint]]),
  ];
}

type Group = 'crusts' | 'marks' | 'fittings' | 'paint';
