/** New sources: lettering and patterns begin with something to see. */
import {
  BlockSchema,
  LetteringSchema,
  newGrow,
  PatternSchema,
  SlabSchema,
  SOURCE_VERSION,
  type Source,
} from '#core/settings';
import * as api from '../api/client';
import { useLibrary } from '../stores/library';
import { usePreferences } from '../stores/preferences';

/** Vertices along a side of a slab, less one, where none are asked for. */
export const USUAL_CELLS = 1024;

export function useNewSource() {
  const library = useLibrary();
  const { author } = usePreferences();

  async function keep<T extends Source>(doc: T): Promise<string> {
    library.putSource(await api.save('sources', doc, null));
    return doc.id;
  }

  /** A slab of the usual density. */
  function addSlab(): Promise<string> {
    return keep(
      SlabSchema.parse({
        version: SOURCE_VERSION,
        kind: 'slab',
        id: crypto.randomUUID(),
        card: { name: library.freeName('sources', 'Slab'), author: author() },
        cells: USUAL_CELLS,
        blob: null,
      }),
    );
  }

  function addLettering(): Promise<string> {
    return keep(
      LetteringSchema.parse({
        version: SOURCE_VERSION,
        kind: 'lettering',
        id: crypto.randomUUID(),
        card: { name: library.freeName('sources', 'Lettering'), author: author() },
        blocks: [BlockSchema.parse({ id: crypto.randomUUID(), text: 'Lettering', size: 18 })],
      }),
    );
  }

  function addPattern(): Promise<string> {
    return keep(
      PatternSchema.parse({
        version: SOURCE_VERSION,
        kind: 'pattern',
        id: crypto.randomUUID(),
        card: { name: library.freeName('sources', 'Pattern'), author: author() },
        grow: newGrow('cells'),
      }),
    );
  }

  return { addSlab, addLettering, addPattern };
}
