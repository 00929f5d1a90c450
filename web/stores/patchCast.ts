/** A patch of a scan at full size: its heights or vectors, its colours, and what is done to its sides. */
import { edgeStep } from '#core/scan';
import { StepSchema, type Alpha, type CastSettings, type Patch, type Step } from '#core/settings';
import * as api from '../api/client';
import type { FlatCast } from '../workers/castResult';
import type { ScanThread } from '../workers/scanThread';
import { fullCast, type FullCast } from './keepCast';

/** With its sides as they are: what is done to them is a step of the alpha’s recipe, and can be changed later. */
export function patchCast(on: ScanThread, patch: Patch, report: (share: number) => void): Promise<FullCast | FlatCast> {
  const bare = (cast: CastSettings): Patch => ({ ...patch, cast, edge: 'cut' });
  return fullCast(
    {
      cast: (cast, told) => on.cast(bare(cast), told),
      vector: (cast, told) => on.vector(bare(cast), told),
    },
    patch.cast,
    report,
  );
}

export function edgeSteps(patch: Patch): Step[] {
  const edge = edgeStep(patch);
  return edge ? [StepSchema.parse({ ...edge, id: crypto.randomUUID() })] : [];
}

export async function coloursOf(on: ScanThread, patch: Patch): Promise<Alpha['lineage']['colours']> {
  const { size } = patch.cast;
  const bytes = await on.colours(patch, size);
  return bytes && { blob: await api.putBlob(new Uint8Array(bytes.buffer as ArrayBuffer)), size };
}
