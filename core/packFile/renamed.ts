/** A document of a pack under the id and the name that it gets here, with all it names under theirs. */
import type { Alpha, Brush, Part } from '#core/settings';
import type { Documents } from '#core/stored';
import { keyed } from './judge';
import type { Travelling } from './manifest';

export function renamed<C extends Travelling>(
  collection: C,
  doc: Documents[C],
  to: { id: string; name: string },
  ids: ReadonlyMap<string, string>,
): Documents[C] {
  const own = { ...doc, id: to.id, card: { ...doc.card, name: to.name } };
  // What didn’t come along keeps its id: it may be here, or come another time.
  const idOf = <I extends string | null>(of: Travelling, id: I): I =>
    id === null ? id : ((ids.get(keyed({ collection: of, id })) ?? id) as I);
  const naming = (): Documents[Travelling] => {
    switch (collection) {
      case 'brushes':
        return brush(own as Brush, idOf);
      case 'alphas':
        return alpha(own as Alpha, idOf);
      case 'parts': {
        const part = own as Part;
        return { ...part, made: { ...part.made, sourceId: idOf('sources', part.made.sourceId) } };
      }
      default:
        return own;
    }
  };
  return naming() as Documents[C];
}

type IdOf = <I extends string | null>(of: Travelling, id: I) => I;

function brush(own: Brush, idOf: IdOf): Brush {
  const { form, tooth, parts } = own;
  return {
    ...own,
    form: { ...form, alphaId: idOf('alphas', form.alphaId) },
    tooth: { ...tooth, alphaId: idOf('alphas', tooth.alphaId) },
    parts: { ...parts, entries: parts.entries.map((entry) => ({ ...entry, partId: idOf('parts', entry.partId) })) },
  };
}

function alpha(own: Alpha, idOf: IdOf): Alpha {
  const { lineage, recipe } = own;
  const { base } = recipe ?? {};
  return {
    ...own,
    lineage: { ...lineage, sourceId: idOf('sources', lineage.sourceId) },
    recipe: recipe && {
      ...recipe,
      base: base && 'sourceId' in base ? { ...base, sourceId: idOf('sources', base.sourceId) } : recipe.base,
      steps: recipe.steps.map((step) =>
        step.kind === 'combine' ? { ...step, alphaId: idOf('alphas', step.alphaId) } : step,
      ),
    },
  };
}
