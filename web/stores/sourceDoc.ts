/** A sheet, scan, lettering or pattern that is open on its bench, with undo of its changes. */
import { computed } from 'vue';
import type { Lettering, Pattern, Scan, Sheet } from '#core/settings';
import * as api from '../api/client';
import { sourceDrafts, type DraftBox } from '../api/drafts';
import { useHistory } from './history';
import { useLibrary } from './library';
import { useOpenDocument } from './openDocument';

const DRAFT_DELAY_MS = 350;

export interface SourceDocOptions {
  /** Changes of one label within this time are one step of undo. */
  togetherMs: number;
  onChange?: () => void;
}

export function useSourceDoc<T extends Sheet | Scan | Lettering | Pattern>({ togetherMs, onChange }: SourceDocOptions) {
  const library = useLibrary();
  const own = useOpenDocument<'sources', T>({
    collection: 'sources',
    what: (doc) => doc?.kind ?? 'source',
    drafts: sourceDrafts as unknown as DraftBox<T>,
    draftMs: DRAFT_DELAY_MS,
    send: (doc, on) => api.save('sources', doc, on),
    closed: (): void => history.close(),
  });
  const { doc } = own;
  const history = useHistory<T>(doc, {
    togetherMs,
    put: (next) => {
      doc.value = next;
      own.touched();
      onChange?.();
    },
  });
  const casts = computed(() => library.alphas.filter((a) => a.lineage.sourceId === doc.value?.id).reverse());

  /** `begin` runs when it is there. */
  async function open(id: string, kind: T['kind'], begin: () => void | Promise<void>): Promise<void> {
    await own.open(
      id,
      (found) => (found.kind === kind ? null : `“${found.card.name}” isn’t a ${kind}.`),
      () => {
        history.resume();
        return begin();
      },
    );
  }

  return { ...own, casts, history, open };
}
