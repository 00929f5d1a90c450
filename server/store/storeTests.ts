/**
 * What any store has to do, told through the port alone. A second store runs the same tests: it hands over how it is
 * opened, and how it is opened again on what it kept.
 */
import { randomUUID } from 'node:crypto';
import { text } from 'node:stream/consumers';
import { seeded } from '#core/random';
import {
  ALPHA_VERSION,
  AlphaSchema,
  newBrush,
  SlabSchema,
  SOURCE_VERSION,
  type Alpha,
  type Brush,
  type Slab,
} from '#core/settings';
import { judged } from '../reading/judged';
import type { Change, List, Store } from './port';

export interface StoreUnderTest {
  /** On the same data each time; with the base brushes in it. */
  open: () => Promise<Store>;
  name: string;
}

export function storeTests({ name, open }: StoreUnderTest): void {
  describe(name, () => {
    let store: Store;
    beforeAll(async () => {
      store = await open();
    });
    afterAll(() => store.close());

    let n = 0;
    const blob = (bytes: number): Promise<string> => {
      n++;
      return store.blobs.put(new Uint8Array(bytes).fill(n % 251).fill(n >> 8, 0, 4));
    };
    function alphaOf(name: string, named: string, over: object = {}): Alpha {
      return AlphaSchema.parse({
        version: ALPHA_VERSION,
        id: randomUUID(),
        card: { name },
        size: 8,
        relief: 0.1,
        ground: 0,
        blob: named,
        lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
        report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
        ...over,
      });
    }
    const slabOf = (name: string, over: object = {}): Slab =>
      SlabSchema.parse({
        version: SOURCE_VERSION,
        kind: 'slab',
        id: randomUUID(),
        card: { name },
        cells: 64,
        blob: null,
        ...over,
      });
    const put = (doc: Brush, revision: number | null): Promise<number> =>
      store.save(judged('brushes', doc), { revision });
    const noted = (doc: Brush, notes: string): Brush => ({ ...doc, card: { ...doc.card, notes } });
    async function brushOf(name: string, alpha: Alpha): Promise<Brush> {
      const doc = newBrush(randomUUID(), name);
      doc.form.alphaId = alpha.id;
      await put(doc, null);
      return doc;
    }
    const taken = (alpha: Alpha): Promise<string> =>
      store.remove('alphas', alpha.id).then(
        () => 'deleted',
        (error: Error) => error.message,
      );

    test('a document is kept with every revision it had', async () => {
      const doc = newBrush(randomUUID(), 'Kept');
      expect(await put(doc, null)).toBe(1);
      expect(await put(noted(doc, 'two'), 1)).toBe(2);
      expect(await put(noted(doc, 'three'), 2)).toBe(3);
      const stored = await store.document('brushes', doc.id);
      expect([stored.revision, stored.doc.card.notes, stored.base]).toEqual([3, 'three', false]);
      expect((await store.head('brushes', doc.id)).head.card.name).toBe('Kept');
      expect((await store.revisions('brushes', doc.id)).map((past) => past.revision)).toEqual([2, 1]);
      const second = JSON.parse(Buffer.from(await store.revision('brushes', doc.id, 2)).toString()) as Brush;
      expect(second.card.notes).toBe('two');
      await expect(store.revision('brushes', doc.id, 7)).rejects.toThrow('Revision 7 of this brush isn’t kept.');
      await expect(store.stored('brushes', randomUUID())).rejects.toThrow('isn’t here');
    });

    test('a revision has a name as long as it is wanted; what was deleted stands in the trash until it is back', async () => {
      const doc = newBrush(randomUUID(), 'Named once');
      await put(doc, null);
      await put(noted(doc, 'two'), 1);
      await store.nameRevision('brushes', doc.id, 1, 'First try');
      expect(await store.revisions('brushes', doc.id)).toMatchObject([{ revision: 1, name: 'First try' }]);
      await expect(store.nameRevision('brushes', doc.id, 9, 'None')).rejects.toThrow('Revision 9');
      await store.remove('brushes', doc.id);
      expect((await store.trash())[0]).toMatchObject({
        collection: 'brushes',
        id: doc.id,
        name: 'Named once',
        revision: 2,
      });
      await store.restore('brushes', doc.id);
      expect((await store.trash()).some(({ id }) => id === doc.id)).toBe(false);
      await store.nameRevision('brushes', doc.id, 1, '');
      expect(await store.revisions('brushes', doc.id)).toMatchObject([{ revision: 1, name: '' }]);
    });

    test('what was changed, deleted or called the same elsewhere is said, and nothing is overwritten', async () => {
      const doc = newBrush(randomUUID(), 'Twice open');
      await put(doc, null);
      await put(noted(doc, 'mine'), 1);
      await expect(put(noted(doc, 'theirs'), 1)).rejects.toThrow('was changed in another window');
      await expect(put(newBrush(randomUUID(), 'TWICE open'), null)).rejects.toThrow('already a brush called');
      const [base] = await store.bases();
      await expect(store.remove('brushes', base!)).rejects.toThrow('is a base brush');
      await store.remove('brushes', doc.id);
      await expect(put(noted(doc, 'late'), 2)).rejects.toThrow('was deleted in another window');
      await store.restore('brushes', doc.id);
      expect((await store.document('brushes', doc.id)).doc.card.notes).toBe('mine');
    });

    test('of saves on one revision that come at once one is kept, whatever their order', async () => {
      const random = seeded(5);
      const doc = newBrush(randomUUID(), 'Contested');
      let revision = await put(doc, null);
      for (let round = 0; round < 12; round++) {
        const count = 2 + Math.floor(random() * 4);
        const all = await Promise.allSettled(
          Array.from({ length: count }, (_, i) => put(noted(doc, `${round}.${i}`), revision)),
        );
        const stored = all.flatMap(({ status }, i) => (status === 'fulfilled' ? [i] : []));
        expect(stored).toHaveLength(1);
        revision++;
        const now = await store.document('brushes', doc.id);
        expect([now.revision, now.doc.card.notes]).toEqual([revision, `${round}.${stored[0]}`]);
      }
    });

    test('a list is read page by page, and a change names another state of it', async () => {
      const before = store.stateOf('sources');
      const made = Array.from({ length: 7 }, (_, i) => slabOf(`Listed ${i}`));
      for (const doc of made) await store.save(judged('sources', doc), { revision: null });
      expect(store.stateOf('sources')).not.toBe(before);
      const names: string[] = [];
      let after: string | null = null;
      do {
        const page: List<'sources'> = await store.list('sources', { after, limit: 3 });
        expect(page.items.length).toBeLessThanOrEqual(3);
        names.push(...page.items.map((item) => item.card.name));
        after = page.next;
      } while (after !== null);
      expect(names.filter((one) => one.startsWith('Listed'))).toEqual(made.map((doc) => doc.card.name));
      await expect(store.list('sources', { after: 'nowhere', limit: 3 })).rejects.toThrow('A list goes on from');
    });

    test('an alpha that brushes use stays, and it is said by whom; one that was only made use of goes', async () => {
      const used = alphaOf('Used', await blob(128));
      await store.save(judged('alphas', used), { revision: null });
      const brushes: Brush[] = [];
      for (const one of ['A', 'B', 'C', 'D', 'E']) brushes.push(await brushOf(`Brush ${one}`, used));
      const mixed = alphaOf('Mixed', await blob(128), {
        recipe: {
          base: { kind: 'cast', blob: await blob(128), format: 'grey16', size: 8 },
          steps: [{ id: randomUUID(), kind: 'combine', alphaId: used.id }],
        },
      });
      await store.save(judged('alphas', mixed), { revision: null });
      expect((await store.usersOf('alphas', used.id)).map((u) => [u.name, u.needed])).toEqual([
        ...brushes.map((b) => [b.card.name, true]),
        ['Mixed', false],
      ]);
      expect(await taken(used)).toBe(
        '“Used” is used by “Brush A”, “Brush B”, “Brush C” and 2 more. Give those another alpha first.',
      );
      for (const brush of brushes.slice(2)) await store.remove('brushes', brush.id);
      expect(await taken(used)).toBe('“Used” is used by “Brush A” and “Brush B”. Give those another alpha first.');
      await put({ ...brushes[0], form: { ...brushes[0].form, alphaId: null } }, 1);
      expect(await taken(used)).toBe('“Used” is used by “Brush B”. Give it another alpha first.');
      await put({ ...brushes[1], form: { ...brushes[1].form, alphaId: mixed.id } }, 1);
      expect(await taken(used)).toBe('deleted');
      await store.restore('alphas', used.id);
      expect(await store.usersOf('alphas', used.id)).toMatchObject([{ name: 'Mixed', needed: false }]);
      expect((await store.blobsNamedBy('alphas', mixed.id)).length).toBe(2);
    });

    test('a brush whose alpha isn’t there is not saved; it is as soon as the alpha is', async () => {
      const late = alphaOf('Late', await blob(128));
      const doc = newBrush(randomUUID(), 'Early');
      doc.form.alphaId = late.id;
      await expect(put(doc, null)).rejects.toThrow('uses an alpha that isn’t here');
      // Asked in the same moment, whichever comes first: it is saved, or a sentence says why not, and then nothing is
      // kept of it.
      const both = await Promise.allSettled([put(doc, null), store.save(judged('alphas', late), { revision: null })]);
      expect(both[1].status).toBe('fulfilled');
      if (both[0].status === 'rejected') expect(await put(doc, null)).toBe(1);
      expect((await store.usersOf('alphas', late.id)).map((u) => u.name)).toEqual(['Early']);
    });

    test('a picture is current until its document, or an alpha in it, is saved again', async () => {
      const alpha = alphaOf('Pictured', await blob(128));
      await store.save(judged('alphas', alpha), { revision: null });
      const doc = await brushOf('Pictured brush', alpha);
      const drawn = { collection: 'brushes', id: doc.id, revision: 1, of: [{ id: alpha.id, revision: 1 }] } as const;
      expect(await store.unpictured('brushes', 100)).toContain(doc.id);
      expect(await store.putPicture({ ...drawn, picture: Uint8Array.of(1, 2) })).toBe(true);
      expect(await store.picture('brushes', doc.id)).toMatchObject({ current: true, revision: 1 });
      expect(await store.unpictured('brushes', 100)).not.toContain(doc.id);
      await store.save(judged('alphas', { ...alpha, relief: 0.2 }), { revision: 1 });
      expect((await store.picture('brushes', doc.id)).current).toBe(false);
      expect(await store.putPicture({ ...drawn, picture: Uint8Array.of(3) })).toBe(false);
      expect((await store.picture('brushes', doc.id)).picture).toEqual(Uint8Array.of(1, 2));
    });

    test('bytes arrive in parts, are named by what they are, and are read whole, in a stream or in a range', async () => {
      async function* parts(): AsyncIterable<Uint8Array> {
        for (const part of ['barnacles ', 'on the ', 'bollard']) yield Buffer.from(part);
      }
      const arrived = await store.blobs.receive(parts(), 100);
      expect(await store.blobs.has(arrived.hash)).toBe(false);
      await store.blobs.keep(arrived);
      await store.blobs.drop(arrived);
      expect([await store.blobs.has(arrived.hash), await store.blobs.size(arrived.hash)]).toEqual([true, 24]);
      expect(Buffer.from(await store.blobs.read(arrived.hash)).toString()).toBe('barnacles on the bollard');
      expect(await text(store.blobs.stream(arrived.hash))).toBe('barnacles on the bollard');
      expect(await text(store.blobs.stream(arrived.hash, { start: 10, end: 15 }))).toBe('on the');
      await expect(store.blobs.receive(parts(), 12)).rejects.toThrow('At most');
      await expect(store.blobs.size('0'.repeat(64))).rejects.toThrow('There is no stored data 000000000000…');
      expect(await store.blobs.renew([arrived.hash, '0'.repeat(64)])).toEqual([arrived.hash]);
    });

    test('what drafts hold stays, and what they name that isn’t here is told', async () => {
      const held = await blob(9);
      const holder = randomUUID();
      expect(await store.putHolds(holder, [held, 'e'.repeat(64)])).toEqual(['e'.repeat(64)]);
      expect(await store.putHolds(holder, [held])).toEqual([]);
    });

    test('the belt keeps its order; what is no brush is left out', async () => {
      const [first, second] = await store.bases();
      expect(await store.putBelt([second!, randomUUID(), first!, second!])).toEqual([second, first]);
      expect(await store.belt()).toEqual([second, first]);
    });

    test('several at once: all of them, or none and nobody hears of them', async () => {
      const heard: Change[] = [];
      const end = store.onChange((change) => heard.push(change));
      const alpha = alphaOf('Together', await blob(128));
      const doc = newBrush(randomUUID(), 'Together');
      doc.form.alphaId = alpha.id;
      const both = (fail: boolean): Promise<void> =>
        store.transaction(async (verbs) => {
          await verbs.save(judged('alphas', alpha), { revision: null });
          await verbs.save(judged('brushes', doc), { revision: null });
          expect(heard).toEqual([]);
          if (fail) throw new Error('The pack is cut short.');
        });
      const belt = await store.belt();
      await expect(both(true)).rejects.toThrow('cut short');
      await expect(store.stored('alphas', alpha.id)).rejects.toThrow('isn’t here');
      // Others wait, and are not part of it.
      const [, other] = await Promise.all([both(false), put(newBrush(randomUUID(), 'Meanwhile'), null)]);
      expect(other).toBe(1);
      expect(heard.slice(0, 2)).toEqual([
        { collection: 'alphas', id: alpha.id, revision: 1 },
        { collection: 'brushes', id: doc.id, revision: 1 },
      ]);
      await store.remove('brushes', doc.id);
      expect(heard.at(-1)).toEqual({ collection: 'brushes', id: doc.id, revision: null });
      await store.restore('brushes', doc.id);
      expect(heard.at(-1)).toEqual({ collection: 'brushes', id: doc.id, revision: 1 });
      end();
      await put(noted(doc, 'unheard'), 1);
      expect(heard.at(-1)!.revision).toBe(1);
      expect(await store.belt()).toEqual(belt);
    });

    test('closed and opened again it holds what was answered', async () => {
      const doc = newBrush(randomUUID(), 'Outlives');
      await put(doc, null);
      const bytes = await blob(31);
      await store.close();
      store = await open();
      expect(store.first).toBe(false);
      expect((await store.document('brushes', doc.id)).revision).toBe(1);
      expect((await store.blobs.read(bytes)).length).toBe(31);
      expect((await store.sizes()).files).toBeGreaterThan(0);
    });
  });
}
