/** New sources: pictures from files or the clipboard become sheets; lettering and patterns begin with something to see. */
import { ref } from 'vue';
import { BlockSchema, LetteringSchema, newGrow, PatternSchema, SheetSchema, SOURCE_VERSION, type Source } from '#core/settings';
import * as api from '../api/client';
import { sentence, useConnection } from '../stores/connection';
import { useLibrary } from '../stores/library';

export interface Arrival {
  key: number;
  name: string;
  /** Null while it is being read. */
  problem: string | null;
}

export function useNewSource() {
  const library = useLibrary();
  const connection = useConnection();
  const arrivals = ref<Arrival[]>([]);
  let keys = 0;

  async function keep<T extends Source>(doc: T): Promise<string> {
    library.putSource(await api.save('sources', doc, null));
    return doc.id;
  }

  /** One after the other; each that can't be read says why, and the others go on. Answers the ids of the sheets. */
  async function addSheets(files: Iterable<File>): Promise<string[]> {
    const made: string[] = [];
    const waiting = [...files].map((file) => {
      const arrival: Arrival = { key: ++keys, name: file.name || 'Picture', problem: null };
      arrivals.value = [...arrivals.value, arrival];
      return { file, arrival };
    });
    for (const { file, arrival } of waiting) {
      try {
        const { blob, name, width, height, what } = await api.postSheet(file);
        const title = library.freeName('sources', name.replace(/\.[^.]+$/, '').slice(0, 70) || 'Sheet');
        made.push(await keep(SheetSchema.parse({ version: SOURCE_VERSION, kind: 'sheet', id: crypto.randomUUID(), card: { name: title }, file: { blob, name, width, height, what } })));
        arrivals.value = arrivals.value.filter((a) => a.key !== arrival.key);
      } catch (error) {
        connection.noticed(error);
        arrivals.value = arrivals.value.map((a) => (a.key === arrival.key ? { ...a, problem: sentence(error) } : a));
      }
    }
    return made;
  }

  function addLettering(): Promise<string> {
    return keep(LetteringSchema.parse({
      version: SOURCE_VERSION, kind: 'lettering', id: crypto.randomUUID(), card: { name: library.freeName('sources', 'Lettering') },
      blocks: [BlockSchema.parse({ id: crypto.randomUUID(), text: 'Lettering', size: 18 })],
    }));
  }

  function addPattern(): Promise<string> {
    return keep(PatternSchema.parse({ version: SOURCE_VERSION, kind: 'pattern', id: crypto.randomUUID(), card: { name: library.freeName('sources', 'Pattern') }, grow: newGrow('cells') }));
  }

  function dismiss(key: number): void {
    arrivals.value = arrivals.value.filter((a) => a.key !== key);
  }

  return { arrivals, addSheets, addLettering, addPattern, dismiss };
}
