/** Writes a pack, or chosen brushes, as plain folders in a ZIP; it is listed as work, and can be cancelled. */
import { packMesh } from '#core/formats';
import { seatOf, stood } from '#core/part';
import { packFolder, type FolderBrush, type FolderContent, type FolderPack } from '#core/pack';
import type { Pack } from '#core/settings';
import * as api from '../api/client';
import { meshFile } from '../workers/meshOutFile';
import { useLibrary } from './library';
import { usePartMeshes } from './partMeshes';
import { useWork, type WorkHand } from './work';

/** The same folders are the same bytes, whenever they are written. */
const DATE = new Date(2000, 0, 1);

export interface Written {
  file: Blob;
  /** Brushes that are left out, and why. */
  left: string[];
}

export function usePackFolder() {
  const library = useLibrary();
  const meshes = usePartMeshes();
  const work = useWork();

  /** Null where it was cancelled. */
  function write(
    name: string,
    about: Pick<Pack, 'card' | 'site' | 'licence'> | null,
    groups: readonly { name: string; ids: readonly string[] }[],
  ): Promise<Written | null> {
    return work.run(`Writing “${name}”`, `folder of ${name}`, async (hand) => {
      const left: string[] = [];
      const gathered: { name: string; brushes: FolderBrush[] }[] = [];
      for (const group of groups) {
        const brushes: FolderBrush[] = [];
        for (const id of group.ids) {
          if (hand.cancelled) return null;
          const found = await gather(id);
          if (typeof found === 'string') left.push(found);
          else brushes.push(found);
        }
        gathered.push({ name: group.name, brushes });
      }
      if (gathered.every(({ brushes }) => brushes.length === 0))
        throw new Error('There is no brush to write that is saved. Save those that are drafts first.');
      const file = await zipped({ name, about, groups: gathered }, hand);
      return file && { file, left };
    });
  }

  /** A sentence where it can’t be written. */
  async function gather(id: string): Promise<FolderBrush | string> {
    const head = library.brushHead(id);
    const stored = await library.savedBrush(id);
    if (!stored) return `“${head?.card.name ?? 'A brush'}” isn’t saved yet.`;
    const { form, tooth, parts } = library.alphasOf(stored.doc);
    return {
      doc: stored.doc,
      alphas: [['Form', form] as const, ['Tooth', tooth] as const].flatMap(([use, alpha]) =>
        alpha
          ? [
              {
                id: alpha.id,
                name: alpha.card.name,
                use,
                vector: alpha.format === 'vector32f',
                coloured: alpha.lineage.colours !== null,
              },
            ]
          : [],
      ),
      parts: parts.map((part) => ({ id: part.id, name: part.card.name })),
    };
  }

  async function zipped(pack: FolderPack, hand: WorkHand): Promise<Blob | null> {
    const entries = packFolder(pack);
    // Fetched when it is first wanted.
    const { BlobReader, BlobWriter, TextReader, ZipWriter } = await import('@zip.js/zip.js');
    const zip = new ZipWriter(new BlobWriter('application/zip'));
    const plain = { lastModDate: DATE, extendedTimestamp: false, useWebWorkers: false };
    for (const [i, { path, content }] of entries.entries()) {
      if (hand.cancelled) return null;
      hand.report(i / entries.length, `${i} of ${entries.length} files`);
      // Pictures are packed already.
      if (content.kind === 'text') await zip.add(path, new TextReader(content.text), { ...plain, level: 6 });
      else await zip.add(path, new BlobReader(await bytesOf(content)), { ...plain, level: 0 });
    }
    return zip.close();
  }

  async function bytesOf(content: Exclude<FolderContent, { kind: 'text' }>): Promise<Blob> {
    switch (content.kind) {
      case 'picture':
        return (await api.request(`/brushes/${content.brush}/picture`)).blob();
      case 'alpha':
        return (await api.request(`/alphas/${content.id}/${content.ending}`)).blob();
      case 'part': {
        const part = library.part(content.id);
        if (!part) throw new Error('A part isn’t here any more; it was deleted in another window.');
        const mesh = packMesh(stood(await meshes.of(part.mesh), seatOf(part.seat)));
        return meshFile('glb', [{ name: part.card.name, mesh, millimetres: part.millimetres, up: 'z' }]);
      }
    }
  }

  return { write };
}
