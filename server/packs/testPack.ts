/** A pack with everything in it that can travel, for tests: every kind of alpha, a part, a source, a recipe. */
import { createHash, randomUUID } from 'node:crypto';
import { packMesh } from '#core/formats';
import { body } from '#core/mesh';
import { seeded } from '#core/random';
import {
  ALPHA_VERSION,
  AlphaSchema,
  BrushSchema,
  newBrush,
  newPack,
  newPalette,
  PART_VERSION,
  PartSchema,
  SOURCE_VERSION,
  SourceSchema,
  type Alpha,
  type Brush,
} from '#core/settings';
import type { Collection } from '#core/stored';

export type Send = (path: string, method: string, body: unknown) => Promise<unknown>;

export const sha = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const asJson = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** What a pack can hold, sent to a server by `send`. Answers the pack’s id and its documents. */
export async function sendPack(
  send: Send,
  { brushes = 6, side = 32, seed = 1 } = {},
): Promise<{ pack: string; palette: string; docs: [Collection, { id: string }][] }> {
  const random = seeded(seed);
  const docs: [Collection, { id: string }][] = [];
  const blob = async (bytes: Uint8Array): Promise<string> => {
    await send(`/blobs/${sha(bytes)}`, 'PUT', bytes);
    return sha(bytes);
  };
  const keep = async <T extends { id: string }>(collection: Collection, doc: T): Promise<T> => {
    await send(`/${collection}/${doc.id}`, 'PUT', { doc, revision: null });
    docs.push([collection, asJson(doc)]);
    return doc;
  };
  const greys = (n = side): Uint8Array =>
    new Uint8Array(Uint16Array.from({ length: n * n }, () => Math.floor(random() * 65536)).buffer);
  const floats = (each: number): Uint8Array =>
    new Uint8Array(Float32Array.from({ length: side * side * each }, () => random() * 3 - 1).buffer);

  const source = await keep(
    'sources',
    SourceSchema.parse({
      version: SOURCE_VERSION,
      id: randomUUID(),
      kind: 'slab',
      card: { name: `Slab ${seed}` },
      cells: 32,
      blob: await blob(new Uint8Array(Float32Array.from({ length: 33 * 33 * 3 }, () => random()).buffer)),
    }),
  );
  const alpha = async (n: number, over: Partial<Alpha>): Promise<Alpha> =>
    keep(
      'alphas',
      AlphaSchema.parse({
        version: ALPHA_VERSION,
        id: randomUUID(),
        card: { name: `Alpha ${n} of ${seed}, “Küste”`, author: 'Tidewrack Workshop' },
        size: side,
        relief: 0.1 + n / 7,
        ground: 0,
        lineage: { sourceId: source.id, sourceRevision: 1, floor: 0, crown: 0.1 },
        report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
        ...over,
      }),
    );
  const base = await blob(greys());
  const alphas = [
    await alpha(0, { blob: await blob(greys()) }),
    await alpha(1, { blob: await blob(floats(1)), format: 'grey32f' }),
    await alpha(2, { blob: await blob(floats(3)), format: 'vector32f' }),
    await alpha(3, {
      blob: await blob(greys()),
      recipe: { base: { kind: 'cast', blob: base, size: side, format: 'grey16' }, steps: [] },
    }),
  ];
  const colours = await blob(Uint8Array.from({ length: 16 * 16 * 4 }, () => Math.floor(random() * 256)));
  alphas.push(
    await alpha(4, {
      blob: await blob(greys()),
      lineage: { ...alphas[0].lineage, colours: { blob: colours, size: 16 } },
    }),
  );
  while (alphas.length < brushes) alphas.push(await alpha(alphas.length, { blob: await blob(greys()) }));
  const ball = body('ball', 8);
  const mesh = await blob(new Uint8Array(packMesh(ball)));
  const part = await keep(
    'parts',
    PartSchema.parse({
      version: PART_VERSION,
      id: randomUUID(),
      card: { name: `Float ${seed}` },
      made: { from: 'slab', sourceId: source.id },
      whole: mesh,
      wholeTriangles: ball.triangles.length / 3,
      mesh,
      triangles: ball.triangles.length / 3,
      millimetres: 12.5,
    }),
  );
  const own: Brush[] = [];
  for (let n = 0; n < brushes; n++) {
    const plain = newBrush(randomUUID(), `Brush ${n} of ${seed}`, n % 2 ? 'Tidewrack Workshop' : '');
    const brush = n === 0 ? shaken(plain, random) : plain;
    brush.form.alphaId = alphas[n].id;
    // Quickly drawn.
    brush.stroke.type = 'press';
    if (n % 3 === 2) brush.tooth.alphaId = alphas[(n + 1) % alphas.length].id;
    if (n === 1) brush.parts.entries = [{ ...PART_ENTRY, partId: part.id }];
    own.push(await keep('brushes', BrushSchema.parse(brush)));
  }
  const palette = await keep(
    'palettes',
    newPalette(randomUUID(), `Wharf ${seed}`, [{ colour: '#aa3311', name: 'Rust' }]),
  );
  const pack = await keep('packs', {
    ...newPack(randomUUID(), `Crusts ${seed}`, {
      groups: [
        { name: 'First', brushes: own.slice(2).map(({ id }) => id) },
        { name: 'Second', brushes: own.slice(0, 2).map(({ id }) => id) },
      ],
    }),
    licence: 'CC-BY-4.0',
    site: 'tidewrack.example',
    cover: own[1].id,
  });
  return { pack: pack.id, palette: palette.id, docs };
}

const PART_ENTRY = BrushSchema.shape.parts.unwrap().shape.entries.unwrap().element.parse({ partId: randomUUID() });

/** Every number and switch of it set to something else that it may be. */
export function shaken(brush: Brush, random: () => number): Brush {
  let out = brush;
  const walk = (value: unknown, path: readonly string[]): void => {
    if (typeof value === 'object' && value !== null && !Array.isArray(value)) {
      for (const [key, inner] of Object.entries(value)) walk(inner, [...path, key]);
      return;
    }
    const wanted = typeof value === 'boolean' ? !value : typeof value === 'number' ? value * (0.6 + random()) : null;
    if (wanted === null || path[0] === 'version') return;
    const next = structuredClone(out) as unknown as Record<string, unknown>;
    let at = next;
    for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
    at[path.at(-1)!] = wanted;
    const read = BrushSchema.safeParse(next);
    if (read.success) out = read.data;
  };
  walk(brush, []);
  return out;
}
