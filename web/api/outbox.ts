/**
 * What was made and is not with the server yet, kept in the browser so that it survives a reload, a crash or an absent
 * server.
 */
import { createStore, del, get, keys, set } from 'idb-keyval';
import type { Welded } from '#core/mesh';
import type { LayerHead } from '#core/paint';
import type { Piece } from '#core/scene';
import type { TrialStroke } from '#core/trial';

/** A painting in squares, packed and gzipped. */
export interface PackedPainting {
  /** Texels a side. */
  size: number;
  layers: PackedLayer[];
}

export interface PackedSquare {
  square: number;
  bytes: ArrayBuffer;
}

export interface PackedLayer extends LayerHead {
  squares: PackedSquare[];
  /** Null where it has none. */
  mask: PackedSquare[] | null;
}

export interface Pending {
  id: string;
  name: string;
  addedAt: number;
}

export interface PendingBody extends Pending {
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  triangles: number;
  report: Omit<Welded, 'mesh'>;
  /** Parts that were set down on it. */
  pieces?: Piece[];
  /** What is painted on it. */
  painting?: PackedPainting | null;
}

export interface PendingTrial extends Pending {
  /** A shipped body's name or the id of one's own. */
  body: string;
  strokes: TrialStroke[];
}

export interface Outbox<W extends Pending> {
  keep(one: W): Promise<void>;
  one(id: string): Promise<W | null>;
  /** Oldest first. */
  all(): Promise<W[]>;
  drop(id: string): Promise<void>;
}

function outbox<W extends Pending>(database: string, name: string): Outbox<W> {
  const store = createStore(database, name);
  return {
    keep: (one) => set(one.id, one, store),
    one: async (id) => (await get<W>(id, store)) ?? null,
    async all() {
      const found = await Promise.all((await keys<string>(store)).map((key) => get<W>(key, store)));
      return found.filter((one) => one !== undefined).sort((a, b) => a.addedAt - b.addedAt);
    },
    drop: (id) => del(id, store),
  };
}

export const pendingBodies = outbox<PendingBody>('mold-stamp-bodies', 'bodies');
export const pendingTrials = outbox<PendingTrial>('mold-stamp-trials', 'trials');
