/** A sculptor with its worker in the same thread, on a tile of 48 × 48 cells, for tests that draw. */
import { plane } from '#core/mesh';
import { packMesh } from '#core/formats';
import { newBrush, type Brush } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { asWorkers } from './testKit';
import { Sculptor } from './sculptor';

export const ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
export const NONE = { form: null, tooth: null, parts: [] };
const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
export const start = { brushId: ID, seed: 1, dig: false, symmetry: NO_SYMMETRY, view };
export const down = (x: number, y: number, time = 0): Sample => ({ origin: [x, y, 5], direction: [0, 0, -1], time });
export const heights = (places: Float32Array): Float32Array => places.filter((_, i) => i % 3 === 2);

export function brush(change: (b: Brush) => void = () => undefined): Brush {
  const made = newBrush(ID, 'Test');
  Object.assign(made.stroke, { size: 0.2, spacing: 25 });
  change(made);
  return made;
}

/** A new sculptor for each test of the file that calls it, and what it told of failures. */
export class AtWork {
  sculptor!: Sculptor;
  problems: string[] = [];

  constructor() {
    let restore: () => void;
    beforeAll(async () => {
      ({ restore } = await asWorkers({ 'sculpt.worker.ts': () => import('./sculpt.worker') }));
    });
    afterAll(() => restore());
    beforeEach(() => {
      this.sculptor = new Sculptor();
      this.problems = [];
      this.sculptor.onProblem = (error) => this.problems.push(error instanceof Error ? error.message : String(error));
    });
    afterEach(() => this.sculptor.close());
  }

  openTile = async (change?: (b: Brush) => void): Promise<void> => {
    await this.sculptor.open({ kind: 'body', body: { mesh: packMesh(plane(48, 2)) }, levels: 0, fresh: true });
    await this.sculptor.use(brush(change), NONE);
  };
  draw = async (...points: (readonly [number, number])[]): Promise<void> => {
    this.sculptor.begin(start, [down(...points[0])]);
    points.slice(1).forEach(([x, y], i) => this.sculptor.extend([down(x, y, (i + 1) * 30)]));
    await this.sculptor.end();
  };
  clay = (): Float32Array => this.sculptor.mesh!.positions.slice();
  masks = (): Float32Array => this.sculptor.mesh!.mask.slice();
  /** Waits until the worker has done all it was asked. */
  quiet = async (): Promise<void> => {
    while (this.sculptor.state.busy) await new Promise((done) => setImmediate(done));
  };
}
