/** Meshes of parts as the page shows them: fetched once, the ones used last stay. */
import { LRUCache } from 'lru-cache';
import { defineStore } from 'pinia';
import { readMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { getBlob } from '../api/client';

const MOST = 200;

export const usePartMeshes = defineStore('part-meshes', () => {
  const meshes = new LRUCache<string, Promise<RawMesh>>({ max: MOST });

  /** By the name of its bytes. Fails with a sentence when they can't be had. */
  function of(hash: string): Promise<RawMesh> {
    const known = meshes.get(hash);
    if (known) return known;
    const made = getBlob(hash).then(readMesh);
    made.catch(() => {
      if (meshes.peek(hash) === made) meshes.delete(hash);
    });
    meshes.set(hash, made);
    return made;
  }

  return { of };
});
