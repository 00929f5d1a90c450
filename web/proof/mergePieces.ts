/** Merges pieces into the body they stand on: one closed mesh, one step of history. Those that can't be stay pieces. */
import { packMesh, readMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { pieceMesh, unmergeable, type Piece } from '#core/scene';
import { stood } from '#core/part';
import type { Sculptor } from '../workers/sculptor';
import { mergedMesh } from '../workers/merger';
import type { WorkHand } from '../stores/work';

export class MergeCancelled extends Error {
  constructor() {
    super('Nothing was merged.');
  }
}

export interface MergeOptions {
  sculptor: Sculptor;
  /** The body's name. */
  name: string;
  meshOf: (hash: string) => Promise<RawMesh>;
  hand: WorkHand;
}

/** Answers how many were merged and why others were not. Fails with a sentence, and nothing has happened then. */
export async function mergePieces(
  pieces: readonly Piece[],
  { sculptor, name, meshOf, hand }: MergeOptions,
): Promise<{ merged: number; left: string[] }> {
  const stopped = new Promise<never>((_, fail) => hand.onCancel(() => fail(new MergeCancelled())));
  stopped.catch(() => undefined);
  const wait = <T>(for_: Promise<T>): Promise<T> => Promise.race([for_, stopped]);
  const parts = await wait(
    Promise.all(
      pieces.map(async (piece) => ({
        id: piece.id,
        name: piece.name,
        mesh: pieceMesh(piece, stood(await meshOf(piece.mesh), piece.seat)),
      })),
    ),
  );
  const left = parts.flatMap((part) => unmergeable(part, 'piece') ?? []);
  const closed = parts.filter((part) => unmergeable(part, 'piece') === null);
  if (closed.length === 0) throw new Error(left[0] ?? 'There is nothing to merge.');
  const mesh = await wait(sculptor.handOut());
  const why = unmergeable({ name, mesh: readMesh(mesh) }, 'body');
  if (why) throw new Error(why);
  const whole = await mergedMesh(
    { name, mesh },
    closed.map((part) => ({ name: part.name, mesh: packMesh(part.mesh) })),
    { step: (share) => hand.report(share), stopped },
  );
  await sculptor.mergePieces(
    closed.map(({ id }) => id),
    whole,
  );
  return { merged: closed.length, left };
}
