/**
 * Pieces become part of the body they stand on, merged or joined: one mesh, one step of history. Those that can't be
 * merged stay pieces.
 */
import { packMesh, readMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { pieceMesh, unmergeable, type Piece } from '#core/scene';
import { stood } from '#core/part';
import type { Sculptor } from '../workers/sculptor';
import { mergedMesh, type BecomePart } from '../workers/merger';
import type { WorkHand } from '../stores/work';

export class MergeCancelled extends Error {
  constructor() {
    super('Nothing was merged.');
  }
}

export interface MergeOptions {
  how: BecomePart;
  sculptor: Sculptor;
  /** The body's name. */
  name: string;
  meshOf: (hash: string) => Promise<RawMesh>;
  hand: WorkHand;
}

/**
 * Answers how many were merged and why others were not. Fails with a sentence, and nothing has happened then. Where the
 * pieces stand is looked up once the body was handed out: whatever is done to either after that makes the merge stale.
 */
export async function mergePieces(
  ids: readonly string[],
  { how, sculptor, name, meshOf, hand }: MergeOptions,
): Promise<{ merged: number; left: string[] }> {
  const stopped = new Promise<never>((_, fail) => hand.onCancel(() => fail(new MergeCancelled())));
  stopped.catch(() => undefined);
  const wait = <T>(for_: Promise<T>): Promise<T> => Promise.race([for_, stopped]);
  const mesh = await wait(sculptor.pieceOrders.handOut());
  const pieces = ids.flatMap((id) => sculptor.pieces.get(id) ?? []);
  const parts = await wait(
    Promise.all(
      pieces.map(async (piece: Piece) => {
        const part = { name: piece.name, mesh: pieceMesh(piece, stood(await meshOf(piece.mesh), piece.seat)) };
        return { ...part, id: piece.id, why: how === 'merge' ? unmergeable(part, 'piece') : null };
      }),
    ),
  );
  const left = parts.flatMap(({ why }) => why ?? []);
  const closed = parts.filter(({ why }) => why === null);
  if (closed.length === 0) throw new Error(left[0] ?? 'There is nothing to merge.');
  const why = how === 'merge' ? unmergeable({ name, mesh: readMesh(mesh) }, 'body') : null;
  if (why) throw new Error(why);
  const whole = await mergedMesh(
    { name, mesh },
    closed.map((part) => ({ name: part.name, mesh: packMesh(part.mesh) })),
    { how, step: (share) => hand.report(share), stopped },
  );
  await sculptor.pieceOrders.merge(
    closed.map(({ id }) => id),
    whole,
  );
  return { merged: closed.length, left };
}
