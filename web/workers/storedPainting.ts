/** A painting on its way to and from where it is kept: its layers in squares, packed and gzipped. */
import { MOST_SQUARE_BYTES, packSquare, readSquare } from '#core/formats';
import { headOf, putSquare, squaresOf, type Layer, type Tiles } from '#core/paint';
import { gunzip, gzip } from '../api/gzip';
import type { PackedLayer, PackedPainting, PackedSquare } from '../api/outbox';

export type { PackedPainting };

export async function packedPainting(size: number, layers: readonly Layer[]): Promise<PackedPainting> {
  const squares = async (tiles: Tiles): Promise<PackedSquare[]> => {
    const out: PackedSquare[] = [];
    for (const [square, own] of squaresOf(tiles, size)) out.push({ square, bytes: await gzip(packSquare(own)) });
    return out;
  };
  const packed: PackedLayer[] = [];
  for (const layer of layers)
    packed.push({
      ...headOf(layer),
      squares: await squares(layer.tiles),
      mask: layer.mask && (await squares(layer.mask)),
    });
  return { size, layers: packed };
}

/** Throws a sentence where a square is broken. */
export async function unpackedLayers({ size, layers }: PackedPainting): Promise<Layer[]> {
  const tilesOf = async (squares: readonly PackedSquare[]): Promise<Tiles> => {
    const tiles: Tiles = new Map();
    for (const { square, bytes } of squares)
      putSquare(tiles, size, square, readSquare(await gunzip(bytes, MOST_SQUARE_BYTES)));
    return tiles;
  };
  const out: Layer[] = [];
  for (const { squares, mask, ...head } of layers)
    out.push({ ...head, tiles: await tilesOf(squares), mask: mask && (await tilesOf(mask)) });
  return out;
}
