/** What a cast reads of its source: a name or a note changed upstream doesn't make a cast old. */
import type { Source } from '#core/settings';

/**
 * As text: where it is the same for two states of a source, casting from either gives the same. `patchId` is that of a
 * scan's patch; one that is gone reads as nothing.
 */
export function readByCast(source: Source, patchId: string | null): string {
  return JSON.stringify(read(source, patchId));
}

function read(source: Source, patchId: string | null): unknown {
  switch (source.kind) {
    // Each cast has a frame of its own.
    case 'slab':
      return [source.cells, source.blob, source.setForms];
    // The window of the picture is the cast's own.
    case 'sheet':
      return [source.file.blob];
    case 'scan': {
      const patch = source.patches.find(({ id }) => id === patchId);
      return [source.mesh, source.perBody, source.unit, patch && { ...patch, name: '' }];
    }
    case 'lettering':
    case 'pattern':
      return { ...source, card: null };
  }
}
