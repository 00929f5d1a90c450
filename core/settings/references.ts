/** What a document names: stored bytes, with the size they must have where that follows from it, and other documents. */
import { FORMAT_BYTES, type Alpha } from './alpha';
import type { OwnBody } from './body';
import { alphasOf, type Brush } from './brush';
import { blobsOf, type Source } from './source';

export interface BlobReference {
  hash: string;
  /** Null where any size will do. */
  bytes: number | null;
}

export interface References {
  blobs: BlobReference[];
  /** Ids of alphas. */
  alphas: string[];
}

/** Bytes of a number in a slab’s data. */
const FLOATS = 4;

export function referencesOfBrush(brush: Brush): References {
  return { blobs: [], alphas: [...new Set(alphasOf(brush))] };
}

export function referencesOfAlpha(alpha: Alpha): References {
  const { recipe, size, format } = alpha;
  const blobs: BlobReference[] = [{ hash: alpha.blob, bytes: size * size * FORMAT_BYTES[format] }];
  if (recipe?.base.kind === 'cast') blobs.push({ hash: recipe.base.blob, bytes: recipe.base.size ** 2 * FORMAT_BYTES[recipe.base.format] });
  else if (recipe && 'blob' in recipe.base) blobs.push({ hash: recipe.base.blob, bytes: null });
  return { blobs, alphas: [] };
}

export function referencesOfSource(source: Source): References {
  const vertices = source.kind === 'slab' ? (source.cells + 1) ** 2 : 0;
  const sizes = new Map<string, number>();
  if (source.kind === 'slab') {
    if (source.blob) sizes.set(source.blob, vertices * 3 * FLOATS);
    if (source.mask) sizes.set(source.mask, vertices * FLOATS);
  }
  return { blobs: [...new Set(blobsOf(source))].map((hash) => ({ hash, bytes: sizes.get(hash) ?? null })), alphas: [] };
}

export function referencesOfBody(body: OwnBody): References {
  return { blobs: [{ hash: body.mesh, bytes: null }], alphas: [] };
}
