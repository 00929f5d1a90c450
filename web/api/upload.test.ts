/** A file on its way: cancelled at any moment it ends once, and what nobody cancelled arrives. */
import fc from 'fast-check';
import { upload, UploadCancelled, type UploadHand } from './upload';

type Moment = 'hand' | 'progress' | 'sent' | 'answered' | 'never';
const MOMENTS: readonly Moment[] = ['hand', 'progress', 'sent', 'answered', 'never'];

/** As the standard has it: `abort` before `send` does nothing, and after the answer nothing either. */
class Line extends EventTarget {
  readonly upload = new EventTarget();
  readonly status = 200;
  responseText = '';
  private going = false;

  open(): void {}
  send(): void {
    this.going = true;
    void this.run();
  }
  abort(): void {
    if (!this.going) return;
    this.going = false;
    this.dispatchEvent(new Event('abort'));
  }

  private async run(): Promise<void> {
    const steps: [EventTarget, Event][] = [
      [this.upload, Object.assign(new Event('progress'), { loaded: 1, total: 2 })],
      [this.upload, new Event('load')],
    ];
    for (const [target, event] of steps) {
      await Promise.resolve();
      if (!this.going) return;
      target.dispatchEvent(event);
    }
    await Promise.resolve();
    if (!this.going) return;
    this.going = false;
    this.responseText = '{"in":true}';
    this.dispatchEvent(new Event('load'));
  }
}

const real = globalThis.XMLHttpRequest;
beforeAll(() => {
  globalThis.XMLHttpRequest = Line as unknown as typeof XMLHttpRequest;
});
afterAll(() => {
  globalThis.XMLHttpRequest = real;
});

/** Sends a file that is cancelled at a moment, `times` times. */
async function sent(when: Moment, times: number): Promise<{ end: string; told: number[] }> {
  let stop = (): void => undefined;
  const told: number[] = [];
  const at = (moment: Moment): void => {
    for (let n = 0; moment === when && n < times; n++) stop();
  };
  const hand: UploadHand = {
    report(share) {
      told.push(share);
      at(told.length === 1 ? 'progress' : 'sent');
    },
    onCancel(by) {
      stop = by;
      at('hand');
    },
  };
  const end = await upload('/arrivals', new Blob(['x']), hand).then(
    async (answer) => JSON.stringify(await answer.json()),
    (error: unknown) => (error instanceof UploadCancelled ? 'cancelled' : String(error)),
  );
  at('answered');
  return { end, told };
}

test('cancelled at any moment before the answer it is stopped, and told no further; after it nothing happens', async () => {
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...MOMENTS), fc.integer({ min: 1, max: 3 }), async (when, times) => {
      const { end, told } = await sent(when, times);
      expect(end).toBe(when === 'answered' || when === 'never' ? '{"in":true}' : 'cancelled');
      expect(told).toEqual(when === 'hand' ? [] : when === 'progress' ? [0.3] : [0.3, 0.6]);
    }),
    { numRuns: 40 },
  );
});
