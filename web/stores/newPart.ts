/** Captures parts: a mesh becomes a part of its own, brought down to a budget, seated, and kept. */
import { readMesh } from '#core/formats';
import { seatFields, seatAlong, type Seat } from '#core/part';
import { BudgetSchema, PART_VERSION, PartSchema, type Part } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import { PartThread } from '../workers/partThread';
import { useLibrary } from './library';
import { useWork, type WorkHand } from './work';
import { usePreferences } from './preferences';

export interface Captured {
  name: string;
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  made: Part['made'];
  /** Of one unit of the mesh. */
  millimetres: number;
  /** Which way is up where it was captured; null rests it on what is lowest along y. */
  up: Pick<Seat, 'up' | 'forward'> | null;
}

const UPRIGHT: Pick<Seat, 'up' | 'forward'> = { up: [0, 1, 0], forward: [0, 0, -1] };

/** Answers the part's id. Throws a sentence that can be shown, or what `hand` was cancelled with. */
export function useNewPart() {
  const { author } = usePreferences();
  const library = useLibrary();
  const work = useWork();

  async function add(captured: Captured): Promise<string> {
    const id = crypto.randomUUID();
    await work.run(`Capturing “${captured.name}”`, `part ${id}`, (hand) => keep(id, captured, hand));
    return id;
  }

  async function keep(id: string, { name, mesh, made, millimetres, up }: Captured, hand: WorkHand): Promise<void> {
    const cancelled = new Promise<never>((_, fail) => hand.onCancel(() => fail(new Error('The part wasn’t kept.'))));
    cancelled.catch(() => undefined);
    const either = <T>(going: Promise<T>): Promise<T> => Promise.race([going, cancelled]);
    const thread = new PartThread();
    try {
      hand.report(0.05, 'Reading');
      const bytes = new Uint8Array(mesh.slice(0));
      const wholeTriangles = readMesh(mesh).triangles.length / 3;
      await either(thread.open(mesh.slice(0), mesh));
      hand.report(0.2, 'Bringing it down to its budget');
      const budget = BudgetSchema.parse({});
      const reduced = await either(thread.reduce(budget));
      const light = readMesh(reduced.mesh.slice(0));
      const stand = up ?? UPRIGHT;
      const seat = seatFields(seatAlong(light, stand.up, stand.forward));
      hand.report(0.7, 'Keeping it');
      const [whole, own] = await either(Promise.all([api.putBlob(bytes), api.putBlob(new Uint8Array(reduced.mesh))]));
      const part = PartSchema.parse({
        version: PART_VERSION,
        id,
        card: { name: library.freeName('parts', name.slice(0, 70) || 'Part'), author: author() },
        made,
        whole,
        wholeTriangles,
        budget,
        mesh: own,
        triangles: reduced.triangles,
        error: reduced.error,
        seat,
        millimetres,
      });
      library.putPart(await either(api.save('parts', plain(part), null)));
    } finally {
      thread.close();
    }
  }

  return { add };
}
