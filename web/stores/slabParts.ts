/** Laying a mesh from a file on the slab as a piece, and turning another of its sides up. */
import { defineStore } from 'pinia';
import { PieceSchema, type PartUp, type Piece } from '#core/settings';
import { getBlob, putBlob } from '../api/client';
import { meshFromAbove, readMeshFile } from '../workers/meshFiles';
import { readingFiles } from './readingFiles';
import { useSlabBench } from './slabBench';
import { useSlabTools } from './slabTools';

const MOST_PIECES = 64;

export const useSlabParts = defineStore('slabParts', () => {
  const bench = useSlabBench();
  const tools = useSlabTools();
  const { problem, busy, reading } = readingFiles();

  /** The heights of a mesh from above, kept, and the height of a piece of this size in true proportion. */
  async function seen(mesh: ArrayBuffer, up: PartUp, size: number): Promise<{ heights: string; height: number }> {
    const { heights, proportion } = await meshFromAbove(mesh, up);
    const height = Number(Math.max(0.001, Math.min(1, proportion * size)).toFixed(3));
    return { heights: await putBlob(new Uint8Array(heights.data.buffer as ArrayBuffer)), height };
  }

  function add(file: File): Promise<void> {
    tools.tab = 'pieces';
    const slab = bench.doc?.id;
    return reading(async () => {
      const mesh = await readMeshFile(file);
      const up: PartUp = /\.(stl|ply)$/i.test(file.name) ? '+z' : '+y';
      const frame = bench.doc?.cast.frame;
      const bare = PieceSchema.parse({ id: crypto.randomUUID(), form: 'part', x: frame?.x ?? 0, y: frame?.y ?? 0 });
      const { heights, height } = await seen(mesh, up, bare.size);
      const blob = await putBlob(new Uint8Array(mesh));
      if (bench.doc?.id !== slab)
        throw new Error(`“${file.name}” isn’t laid: its slab was left before it was read. Lay it again there.`);
      // Counted now: others may have come while this one was read.
      if (bench.pieces.length >= MOST_PIECES)
        throw new Error(`At most ${MOST_PIECES} pieces lie on a slab at once; bake some first.`);
      tools.pieceId = bare.id;
      await bench.editPieces((own) =>
        own.pieces.push({ ...bare, height, part: { name: file.name.slice(0, 120), mesh: blob, up, heights } }),
      );
    });
  }

  function turnUp(piece: Piece, up: PartUp): Promise<void> {
    return reading(async () => {
      if (!piece.part) return;
      const { heights, height } = await seen(await getBlob(piece.part.mesh), up, piece.size);
      await bench.editPieces((slab) => {
        const own = slab.pieces.find((p) => p.id === piece.id);
        if (own?.part) Object.assign(own, { height, part: { ...own.part, up, heights } });
      });
    });
  }

  return { add, turnUp, problem, busy };
});
