/**
 * Small pictures of what is kept: drawn when they are asked for or when there is nothing else to do, one at a time, after
 * the save that made them necessary was answered.
 */
import { alphasOf, type Alpha, type Brush, type Source } from '#core/settings';
import { SINGULAR, type Collection } from '#core/kept';
import type { Database } from './database';
import { Problem } from './problem';
import { getDocument, getPicture, putPicture, unpictured } from './queries/documents';
import type { Studio } from './studio/studio';

const PICTURED = ['brushes', 'alphas', 'sources'] as const satisfies readonly Collection[];
type Pictured = (typeof PICTURED)[number];
const REST_MS = 1500;
const BATCH = 50;

export class Pictures {
  private readonly drawing = new Map<string, Promise<Uint8Array | null>>();
  /** What can't be drawn isn't tried again before it is saved again. */
  private readonly failed = new Set<string>();
  private timer: NodeJS.Timeout | undefined;
  private closed = false;

  constructor(private readonly db: Database, private readonly studio: Studio) {}

  /** The picture as the document is now; an older one where it can't be drawn. */
  async of(collection: Collection, id: string): Promise<Uint8Array> {
    const kept = await getPicture(this.db, collection, id);
    const picture = kept.current || !isPictured(collection) ? kept.picture : (await this.draw(collection, id)) ?? kept.picture;
    if (!picture) throw new Problem(404, 'no-picture', `This ${SINGULAR[collection]} has no picture.`);
    return picture;
  }

  /** Something was saved: what is to be drawn is drawn when the hand rests. */
  soon(): void {
    if (this.closed) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.drawAll().catch((error: unknown) => this.closed || console.error(error)), REST_MS);
    this.timer.unref();
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.timer);
    await Promise.allSettled(this.drawing.values());
  }

  private async drawAll(): Promise<void> {
    for (const collection of PICTURED) {
      for (;;) {
        const ids = (await unpictured(this.db, collection, BATCH)).filter((id) => !this.failed.has(id));
        if (ids.length === 0) break;
        for (const id of ids) {
          if (this.closed) return;
          if ((await this.draw(collection, id)) === null) this.failed.add(id);
        }
      }
    }
  }

  /** Null when it can't be drawn. Asked for twice at once it is drawn once. */
  private draw(collection: Pictured, id: string): Promise<Uint8Array | null> {
    const key = `${collection} ${id}`;
    const going = this.drawing.get(key);
    if (going) return going;
    const made = this.drawNow(collection, id).catch((error: unknown) => {
      if (!(error instanceof Problem) && !this.closed) console.error(error);
      return null;
    }).finally(() => this.drawing.delete(key));
    this.drawing.set(key, made);
    return made;
  }

  private async drawNow(collection: Pictured, id: string): Promise<Uint8Array> {
    // What was saved while it was drawn is drawn again; someone who saves without end gets the one before.
    for (let attempt = 0; ; attempt++) {
      const { doc, revision } = await getDocument(this.db, collection, id);
      const { picture, of } = await this.render(collection, doc);
      if ((await putPicture(this.db, { collection, id, revision, picture, of })) || attempt === 3) return picture;
    }
  }

  private async render(collection: Pictured, doc: Brush | Alpha | Source): Promise<{ picture: Uint8Array; of: { id: string; revision: number }[] }> {
    switch (collection) {
      case 'alphas': return { picture: await this.studio.alpha(doc as Alpha), of: [] };
      case 'sources': return { picture: await this.studio.source(doc as Source), of: [] };
      case 'brushes': {
        const brush = doc as Brush;
        const alphas = await Promise.all(alphasOf(brush).map((id) => getDocument(this.db, 'alphas', id).catch(() => null)));
        const found = (id: string | null): Alpha | null => alphas.find((a) => a?.doc.id === id)?.doc ?? null;
        const picture = await this.studio.brush(brush, { form: found(brush.form.alphaId), tooth: found(brush.tooth.alphaId) });
        return { picture, of: alphas.filter((a) => a !== null).map((a) => ({ id: a.doc.id, revision: a.revision })) };
      }
    }
  }
}

function isPictured(collection: Collection): collection is Pictured {
  return (PICTURED as readonly Collection[]).includes(collection);
}
