/** New sources: lettering and patterns begin with something to see. */
import { BlockSchema, LetteringSchema, newGrow, PatternSchema, SOURCE_VERSION, type Source } from '#core/settings';
import * as api from '../api/client';
import { useLibrary } from '../stores/library';

export function useNewSource() {
  const library = useLibrary();

  async function keep<T extends Source>(doc: T): Promise<string> {
    library.putSource(await api.save('sources', doc, null));
    return doc.id;
  }

  function addLettering(): Promise<string> {
    return keep(
      LetteringSchema.parse({
        version: SOURCE_VERSION,
        kind: 'lettering',
        id: crypto.randomUUID(),
        card: { name: library.freeName('sources', 'Lettering') },
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
        card: { name: library.freeName('sources', 'Pattern') },
        grow: newGrow('cells'),
      }),
    );
  }

  return { addLettering, addPattern };
}
