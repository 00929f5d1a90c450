/**
 * What a document names: stored bytes, with the size they must have where that follows from it, and other documents.
 */
import { FORMAT_BYTES, type Alpha } from './alpha';
import type { OwnBody } from './body';
import { alphasOf, type Brush } from './brush';
import type { Part } from './part';
import { blobsOf, type Source } from './source';

export interface BlobReference {
  hash: string;
  /** Null where any size will do. */
  bytes: number | null;
}

export interface DocumentReference {
  collection: 'alphas' | 'brushes' | 'sources' | 'parts';
  id: string;
  /** It must be there when the document is saved, and can't be deleted as long as the document names it. */
  needed: boolean;
}

export interface References {
  blobs: BlobReference[];
  documents: DocumentReference[];
}

/** Red, green, blue and cover. */
const COLOUR_BYTES = 4;
/** Bytes of a number in a slab’s data. */
const FLOATS = 4;

export function referencesOfBrush(brush: Brush): References {
  return {
    blobs: [],
    documents: [
      ...[...new Set(alphasOf(brush))].map((id) => ({ collection: 'alphas' as const, id, needed: true })),
      ...[...new Set(brush.parts.entries.map(({ partId }) => partId))].map((id) => ({
        collection: 'parts' as const,
        id,
        needed: true,
      })),
    ],
  };
}

export function referencesOfAlpha(alpha: Alpha): References {
  const { recipe, size, format } = alpha;
  const blobs: BlobReference[] = [{ hash: alpha.blob, bytes: size * size * FORMAT_BYTES[format] }];
  if (recipe?.base.kind === 'cast')
    blobs.push({ hash: recipe.base.blob, bytes: recipe.base.size ** 2 * FORMAT_BYTES[recipe.base.format] });
  else if (recipe && 'blob' in recipe.base) blobs.push({ hash: recipe.base.blob, bytes: null });
  const { colours } = alpha.lineage;
  if (colours) blobs.push({ hash: colours.blob, bytes: colours.size ** 2 * COLOUR_BYTES });
  // A cast that was left as it is is its own base.
  return {
    blobs: blobs.filter((b, i) => blobs.findIndex((o) => o.hash === b.hash) === i),
    documents: [...made(alpha), ...combined(alpha)],
  };
}

/** What it was made from may go: the steps and the base that it needs are its own. */
function made({ lineage, recipe }: Alpha): DocumentReference[] {
  const ids = [lineage.sourceId, recipe && 'sourceId' in recipe.base ? recipe.base.sourceId : null].filter(
    (id) => id !== null,
  );
  return [...new Set(ids)].map((id) => ({ collection: 'sources', id, needed: false }));
}

function combined({ recipe }: Alpha): DocumentReference[] {
  const ids = (recipe?.steps ?? []).flatMap((step) =>
    step.kind === 'combine' && step.alphaId !== null ? [step.alphaId] : [],
  );
  return [...new Set(ids)].map((id) => ({ collection: 'alphas', id, needed: false }));
}

export function referencesOfSource(source: Source): References {
  const vertices = source.kind === 'slab' ? (source.cells + 1) ** 2 : 0;
  const sizes = new Map<string, number>();
  if (source.kind === 'slab') {
    if (source.blob) sizes.set(source.blob, vertices * 3 * FLOATS);
    if (source.mask) sizes.set(source.mask, vertices * FLOATS);
  }
  return {
    blobs: [...new Set(blobsOf(source))].map((hash) => ({ hash, bytes: sizes.get(hash) ?? null })),
    documents: [],
  };
}

export function referencesOfBody(body: OwnBody): References {
  const painted = (body.painting?.layers ?? []).flatMap(({ squares, mask }) => [...squares, ...(mask ?? [])]);
  const named = [
    body.mesh,
    ...(body.shapes ? [body.shapes] : []),
    ...body.pieces.map(({ mesh }) => mesh),
    ...painted.map(({ blob }) => blob),
  ];
  return { blobs: [...new Set(named)].map((hash) => ({ hash, bytes: null })), documents: [] };
}

export function referencesOfPart({ whole, mesh, made }: Part): References {
  return {
    blobs: [...new Set([whole, mesh])].map((hash) => ({ hash, bytes: null })),
    // What it was captured from may go: it has its own whole.
    documents: made.sourceId === null ? [] : [{ collection: 'sources', id: made.sourceId, needed: false }],
  };
}
