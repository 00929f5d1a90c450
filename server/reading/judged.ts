/** A document that was read and found good, as text: what is kept of it, what it names, and what a list says of it. */
import { headOf, kindOf, referencesOf, type Collection, type Documents } from '#core/stored';
import type { References, Source } from '#core/settings';

export interface Judged {
  collection: Collection;
  id: string;
  name: string;
  kind: string;
  /** The document as JSON, UTF-8. */
  text: Uint8Array;
  /** The same once more, of a large one: it may be given away to another thread in place of being copied for it. */
  spare?: Uint8Array;
  /** Its head as JSON. */
  head: string;
  references: References;
  files: NamedFile[];
}

/** A file from outside that a document names: it must be readable. */
export interface NamedFile {
  kind: 'picture' | 'font';
  blob: string;
  name: string;
}

/** Its bytes can go to another thread, which those of a small Buffer can’t. */
const encoder = new TextEncoder();

export function judged<C extends Collection>(collection: C, doc: Documents[C]): Judged {
  return {
    collection,
    id: doc.id,
    name: doc.card.name,
    kind: kindOf(collection, doc),
    text: encoder.encode(JSON.stringify(doc)),
    head: JSON.stringify(headOf(collection, doc)),
    references: referencesOf(collection, doc),
    files: collection === 'sources' ? filesOf(doc as Source) : [],
  };
}

function filesOf(source: Source): NamedFile[] {
  if (source.kind === 'sheet') return [{ kind: 'picture', blob: source.file.blob, name: source.file.name }];
  if (source.kind !== 'lettering') return [];
  const fonts = new Map<string, NamedFile>();
  for (const { font } of source.blocks)
    if (font.kind === 'own') fonts.set(font.blob, { kind: 'font', blob: font.blob, name: font.name });
  return [...fonts.values()];
}
