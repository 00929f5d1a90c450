/**
 * Small pictures of what is stored: drawn when they are asked for or when there is nothing else to do, one at a time,
 * after the save that made them necessary was answered.
 */
import { headOf, SINGULAR, type AlphaHead, type Collection, type Documents } from '#core/stored';
import { alphasOf } from '#core/settings';
import { Problem } from './problem';
import type { Store } from './store/port';
import type { Studio } from './studio/studio';
import { log } from './log';

const PICTURED = ['brushes', 'alphas', 'sources', 'parts'] as const satisfies readonly Collection[];
type Pictured = (typeof PICTURED)[number];
const REST_MS = 1500;
const BATCH = 50;
/** Of an earlier save, so that reading it holds nobody up. */
const MOST_DRAWN_TEXT = 4 * 2 ** 20;

export class Pictures {
  private readonly drawing = new Map<string, Promise<Uint8Array | null>>();
  /** What can't be drawn isn't tried again before it is saved again. */
  private readonly failed = new Set<string>();
  private timer: NodeJS.Timeout | undefined;
  private closed = false;

  constructor(
    private readonly store: Store,
    private readonly studio: Studio,
  ) {}

  /** The picture as the document is now; an older one where it can't be drawn. */
  async of(collection: Collection, id: string): Promise<Uint8Array> {
    const stored = await this.store.picture(collection, id);
    const picture =
      stored.current || !isPictured(collection)
        ? stored.picture
        : ((await this.draw(collection, id)) ?? stored.picture);
    if (!picture) throw new Problem(404, 'no-picture', `This ${SINGULAR[collection]} has no picture.`);
    return picture;
  }

  /** What a document looked like at an earlier save. Drawn each time it is asked for. */
  async ofRevision(collection: Collection, text: Uint8Array): Promise<Uint8Array> {
    const unpictured = new Problem(404, 'no-picture', `This save of a ${SINGULAR[collection]} has no picture.`);
    if (text.length > MOST_DRAWN_TEXT) throw unpictured;
    const doc: unknown = JSON.parse(Buffer.from(text).toString('utf8'));
    switch (collection) {
      case 'alphas':
        return this.studio.alpha(headOf('alphas', doc as Documents['alphas']));
      case 'parts':
        return this.studio.part(headOf('parts', doc as Documents['parts']));
      case 'sources':
        return this.studio.source(headOf('sources', doc as Documents['sources']), text);
      default:
        throw unpictured;
    }
  }

  /** Something was saved: what is to be drawn is drawn when the hand rests. */
  soon(): void {
    if (this.closed) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(
      () =>
        void this.drawAll().catch((error: unknown) => this.closed || log.error(error, 'A picture could not be drawn')),
      REST_MS,
    );
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
        const ids = (await this.store.unpictured(collection, BATCH)).filter((id) => !this.failed.has(id));
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
    const made = this.drawNow(collection, id)
      .catch((error: unknown) => {
        if (!(error instanceof Problem) && !this.closed) log.error(error, 'A picture could not be drawn');
        return null;
      })
      .finally(() => this.drawing.delete(key));
    this.drawing.set(key, made);
    return made;
  }

  private async drawNow(collection: Pictured, id: string): Promise<Uint8Array> {
    // What was saved while it was drawn is drawn again; someone who saves without end gets the one before.
    for (let attempt = 0; ; attempt++) {
      const { picture, revision, of } = await this.render(collection, id);
      if ((await this.store.putPicture({ collection, id, revision, picture, of })) || attempt === 3) return picture;
    }
  }

  private async render(collection: Pictured, id: string): Promise<Rendered> {
    switch (collection) {
      case 'alphas': {
        const { head, revision } = await this.store.head(collection, id);
        return { picture: await this.studio.alpha(head), revision, of: [] };
      }
      case 'parts': {
        const { head, revision } = await this.store.head(collection, id);
        return { picture: await this.studio.part(head), revision, of: [] };
      }
      case 'sources': {
        const { head, revision } = await this.store.head(collection, id);
        const { text } = await this.store.stored(collection, id);
        return { picture: await this.studio.source(head, text), revision, of: [] };
      }
      case 'brushes': {
        const { doc, revision } = await this.store.document(collection, id);
        const alphas = await Promise.all(
          alphasOf(doc).map((alpha) => this.store.head('alphas', alpha).catch(() => null)),
        );
        const found = (alpha: string | null): AlphaHead | null =>
          alphas.find((a) => a?.head.id === alpha)?.head ?? null;
        const [first] = doc.parts.entries;
        const picture = await this.studio.brush(doc, {
          form: found(doc.form.alphaId),
          tooth: found(doc.tooth.alphaId),
          part: first ? ((await this.store.head('parts', first.partId).catch(() => null))?.head ?? null) : null,
        });
        return {
          picture,
          revision,
          of: alphas.filter((a) => a !== null).map((a) => ({ id: a.head.id, revision: a.revision })),
        };
      }
    }
  }
}

interface Rendered {
  picture: Uint8Array;
  /** What it shows, as it was: of the document, and of the alphas in it. */
  revision: number;
  of: { id: string; revision: number }[];
}

function isPictured(collection: Collection): collection is Pictured {
  return (PICTURED as readonly Collection[]).includes(collection);
}
