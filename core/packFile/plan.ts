/**
 * What goes into a pack file and where: documents, the stored bytes they name, and pictures of the brushes. The same
 * pack is planned the same way each time; who writes it fetches the bytes.
 */
import { fileNameOf, Names } from '#core/pack';
import type { Alpha, Brush, OwnPalette, Pack, Part, Source } from '#core/settings';
import { referencesOf } from '#core/stored';
import type { DataKind, Provenance, Travelling } from './manifest';

export interface PackContents {
  name: string;
  pack: Pack | null;
  /** In the pack’s order. */
  brushes: readonly Brush[];
  alphas: readonly Alpha[];
  parts: readonly Part[];
  sources: readonly Source[];
  palettes: readonly OwnPalette[];
}

export interface PlannedDocument {
  path: string;
  collection: Travelling;
  id: string;
  name: string;
  provenance: Provenance;
  /** JSON, with a line to each setting. */
  text: string;
}

export interface PlannedData {
  path: string;
  kind: DataKind;
  blob: string;
  title: string;
  provenance: Provenance;
  /** Pixels per side of a picture. */
  size?: number;
  /** Of heights, in frame sides. */
  relief?: number;
  /** Of one unit of a mesh. */
  millimetres?: number;
}

export interface PackPlan {
  name: string;
  pack: Pack | null;
  documents: PlannedDocument[];
  data: PlannedData[];
  pictures: { path: string; brush: string; title: string; provenance: Provenance }[];
}

/** Without what it was made from: its recipe; of a part, the mesh before it was made light. */
export function withoutRecipe<T extends Alpha | Part>(doc: T): T {
  return 'whole' in doc
    ? { ...doc, whole: doc.mesh, wholeTriangles: doc.triangles, error: { largest: 0, mean: 0 } }
    : { ...doc, recipe: null };
}

export function planPack({ name, pack, ...docs }: PackContents): PackPlan {
  const plan: PackPlan = { name, pack, documents: [], data: [], pictures: [] };
  const blobs = new Set<string>();
  const names = Object.fromEntries(
    ['sources', 'alphas', 'parts', 'palettes', 'brushes', 'data'].map((folder) => [folder, new Names()]),
  );
  const data = (stem: string, one: Omit<PlannedData, 'path'>): void => {
    if (blobs.has(one.blob)) return;
    blobs.add(one.blob);
    const path =
      one.kind === 'bytes' ? `data/${one.blob}` : `${names[stem.split('/')[0]].free(stem, ENDINGS[one.kind])}`;
    plan.data.push({ ...one, path });
  };
  const document = (collection: Travelling, doc: { id: string; card: { name: string; author: string } }): Own => {
    const provenance: Provenance = {
      maker: doc.card.author || (pack?.card.author ?? ''),
      site: pack?.site ?? '',
      licence: pack?.licence ?? '',
      pack: pack?.card.name ?? '',
    };
    const path = names[collection].free(`${collection}/${fileNameOf(doc.card.name, collection.slice(0, -1))}`, '.json');
    const { id } = doc;
    const text = `${JSON.stringify({ provenance, document: doc }, null, 1)}\n`;
    plan.documents.push({ path, collection, id, name: doc.card.name, provenance, text });
    return { stem: path.slice(0, -'.json'.length), title: doc.card.name, provenance };
  };

  for (const source of docs.sources) {
    const own = document('sources', source);
    for (const { hash } of referencesOf('sources', source).blobs)
      data(own.stem, { ...of(own), kind: 'bytes', blob: hash });
  }
  for (const alpha of docs.alphas) {
    const own = document('alphas', alpha);
    const { size, relief } = alpha;
    data(own.stem, { ...of(own), kind: alpha.format, blob: alpha.blob, size, relief });
    const { colours } = alpha.lineage;
    if (colours) data(`${own.stem}, colours`, { ...of(own), kind: 'rgba8', ...colours });
    const base = alpha.recipe?.base;
    if (base?.kind === 'cast')
      data(`${own.stem}, before its recipe`, {
        ...of(own),
        kind: base.format,
        blob: base.blob,
        size: base.size,
        relief,
      });
    else if (base && 'blob' in base) data(own.stem, { ...of(own), kind: 'bytes', blob: base.blob });
  }
  for (const part of docs.parts) {
    const own = document('parts', part);
    const { mesh, whole, millimetres } = part;
    data(own.stem, { ...of(own), kind: 'mesh', blob: mesh, millimetres });
    data(`${own.stem}, whole`, { ...of(own), kind: 'mesh', blob: whole, millimetres });
  }
  for (const palette of docs.palettes) document('palettes', palette);
  for (const brush of docs.brushes) {
    const own = document('brushes', brush);
    plan.pictures.push({ path: `${own.stem}.png`, brush: brush.id, ...of(own) });
  }
  return plan;
}

interface Own {
  stem: string;
  title: string;
  provenance: Provenance;
}

const of = ({ title, provenance }: Own): Omit<Own, 'stem'> => ({ title, provenance });

const ENDINGS: Record<DataKind, string> = {
  grey16: '.png',
  grey32f: '.exr',
  vector32f: '.exr',
  rgba8: '.png',
  mesh: '.glb',
  bytes: '',
};
