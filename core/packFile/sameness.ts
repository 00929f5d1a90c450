/** Whether two documents are the same thing, whatever they are called and under whichever id they are kept. */
import { worksOf, type Alpha, type Brush, type OwnPalette, type Part, type Source } from '#core/settings';

/** What stamps alike. */
export type KeyedAlpha = Pick<Alpha, 'blob' | 'format' | 'size' | 'relief' | 'ground'> & {
  lineage: Pick<Alpha['lineage'], 'colours'>;
};
export type KeyedPart = Pick<Part, 'mesh' | 'seat' | 'millimetres'>;

export function alphaKey({ blob, format, size, relief, ground, lineage }: KeyedAlpha): string {
  return JSON.stringify([blob, format, size, relief, ground, lineage.colours?.blob ?? null]);
}

export function partKey({ mesh, seat: { up, forward, rest, base, sink, scale }, millimetres }: KeyedPart): string {
  const places = [up, forward, rest].map(({ x, y, z }) => [x, y, z]);
  return JSON.stringify([mesh, places, base, sink, scale, millimetres]);
}

export function paletteKey({ groups }: Pick<OwnPalette, 'groups'>): string {
  return JSON.stringify(groups.map(({ name, colours }) => [name, colours.map((one) => [one.colour, one.name])]));
}

export function sourceKey(source: Source): string {
  return JSON.stringify({ ...source, id: '', card: null });
}

/** `keyOf` answers the key of an alpha or a part that it names. */
export function brushKey(brush: Brush, keyOf: (collection: 'alphas' | 'parts', id: string) => string): string {
  const alpha = (id: string | null): string | null => id && keyOf('alphas', id);
  return worksOf({
    ...brush,
    form: { ...brush.form, alphaId: alpha(brush.form.alphaId) },
    tooth: { ...brush.tooth, alphaId: alpha(brush.tooth.alphaId) },
    parts: {
      ...brush.parts,
      entries: brush.parts.entries.map((entry) => ({ ...entry, partId: keyOf('parts', entry.partId) })),
    },
  });
}
