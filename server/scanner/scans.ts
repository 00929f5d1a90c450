/** Scans that run: one at a time for each scanner, with progress and cancel, until their page was asked for. */
import { randomUUID } from 'node:crypto';
import { asProblem, Problem } from '../problem';
import type { Blobs } from '../store/port';
import type { Studio } from '../studio/studio';
import { checkLocal, scannerUrl } from './address';
import { capabilitiesOf, scanPage, type Patience } from './device';
import { formatFor, pixelsOf, type Area, type Capabilities, type ScanWish } from './escl';

const MOST_BYTES = 208 * 2 ** 20;
/** What came of a scan is kept for whoever asks for so long. */
const KEPT_MS = 10 * 60_000;

export interface ScanOrder {
  address: string;
  /** The person was asked whether it may be outside of the local network. */
  outside: boolean;
  dpi: number;
  colour: ScanWish['colour'];
  /** Null is the whole glass. */
  area: Area | null;
}

export interface ScanState {
  bytes: number;
  /** Null where the scanner doesn’t say how much there is. */
  share: number | null;
  page: { blob: string; name: string; width: number; height: number; what: string } | null;
  /** The page isn’t as large as was asked for. */
  odd: string | null;
  problem: string | null;
}

interface Running {
  host: string;
  state: ScanState;
  stop: AbortController;
  done: Promise<void>;
}

export class Scans {
  private readonly scans = new Map<string, Running>();

  constructor(
    private readonly blobs: Blobs,
    private readonly studio: Pick<Studio, 'lookAt'>,
    private readonly patience?: Patience,
  ) {}

  async capabilities(address: string, outside: boolean): Promise<Capabilities> {
    const root = scannerUrl(address);
    await checkLocal(root, outside);
    return capabilitiesOf(root, this.patience);
  }

  async begin(order: ScanOrder): Promise<string> {
    const root = scannerUrl(order.address);
    await checkLocal(root, order.outside);
    const can = await capabilitiesOf(root, this.patience);
    const glass = { x: 0, y: 0, width: can.widthMm, height: can.heightMm };
    const area = order.area ? within(order.area, glass) : glass;
    const colour = can.colours.includes(order.colour) ? order.colour : (can.colours[0] ?? 'grey');
    const wish = { dpi: order.dpi, colour, area, format: formatFor(can, { dpi: order.dpi, area }) };
    if (!can.resolutions.includes(order.dpi))
      throw new Problem(422, 'scanner-dpi', `This scanner offers ${can.resolutions.join(', ')} dpi.`);
    if ([...this.scans.values()].some(({ host, state }) => host === root.host && !state.page && !state.problem))
      throw new Problem(409, 'scanner-busy', `The scanner at ${root.host} is scanning already.`);
    const id = randomUUID();
    const state: ScanState = { bytes: 0, share: null, page: null, odd: null, problem: null };
    const stop = new AbortController();
    const done = this.run(root, wish, state, stop.signal).catch((error: unknown) => {
      state.problem = asProblem(error).message;
    });
    this.scans.set(id, { host: root.host, state, stop, done });
    void done.then(() => setTimeout(() => this.scans.delete(id), KEPT_MS).unref());
    return id;
  }

  state(id: string): ScanState {
    const scan = this.scans.get(id);
    if (!scan) throw new Problem(404, 'scan-gone', 'This scan isn’t known here any more. Scan again.');
    return scan.state;
  }

  cancel(id: string): void {
    this.scans.get(id)?.stop.abort();
  }

  async close(): Promise<void> {
    for (const { stop } of this.scans.values()) stop.abort();
    await Promise.all([...this.scans.values()].map(({ done }) => done));
  }

  private async run(root: URL, wish: ScanWish, state: ScanState, signal: AbortSignal): Promise<void> {
    const { length, chunks } = await scanPage(root, wish, signal, this.patience);
    const arrived = await this.blobs.receive(counted(chunks, length, state), MOST_BYTES);
    try {
      if (length !== null && arrived.bytes < length)
        throw new Problem(
          502,
          'scanner-stopped',
          `The scanner at ${root.host} sent ${arrived.bytes} of ${length} bytes. Nothing was kept. Scan again.`,
        );
      const name = `scan at ${wish.dpi} dpi.${wish.format === 'image/png' ? 'png' : 'jpg'}`;
      const { width, height, what } = await this.studio.lookAt(arrived, name);
      await this.blobs.keep(arrived);
      const wanted = pixelsOf(wish.dpi, wish.area);
      if (Math.abs(width / wanted.width - 1) > ODD || Math.abs(height / wanted.height - 1) > ODD)
        state.odd = `The scanner sent ${width} × ${height} px where ${wanted.width} × ${wanted.height} were asked for.`;
      state.page = { blob: arrived.hash, name, width, height, what };
    } finally {
      await this.blobs.drop(arrived);
    }
  }
}

/** Scanners round lengths to their own steps. */
const ODD = 0.03;

async function* counted(
  chunks: AsyncIterable<Uint8Array>,
  length: number | null,
  state: ScanState,
): AsyncIterable<Uint8Array> {
  for await (const chunk of chunks) {
    state.bytes += chunk.length;
    state.share = length === null ? null : Math.min(1, state.bytes / length);
    yield chunk;
  }
}

function within(area: Area, glass: Area): Area {
  const x = Math.max(0, Math.min(area.x, glass.width - 5));
  const y = Math.max(0, Math.min(area.y, glass.height - 5));
  return { x, y, width: Math.min(area.width, glass.width - x), height: Math.min(area.height, glass.height - y) };
}
