import type { DabFrame } from '#core/brush';
import { buildMesh, plane, type Ray } from '#core/mesh';
import { newBrush, type Brush } from '#core/settings';
import { NO_SYMMETRY, type Sample, type StencilRows, type View } from '#core/stroke';
import type { ClayView } from './clayView';
import { StrokeInput, type StrokeInputOptions, type StrokeTaker } from './strokeInput';

/** A view of 200 × 200 px that looks straight down on a tile of side 2, at (10, 20) of the page. */
const SIDE = 200;
const LEFT = 10;
const TOP = 20;
const VIEW: View = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] };
const ray = (x: number, y: number): Ray => ({
  origin: [(x / SIDE) * 4 - 2, 2 - (y / SIDE) * 4, 5],
  direction: [0, 0, -1],
});

type Listener = (e: unknown) => void;
let heard: Map<string, Listener>;
let intervals: { act: () => void; ms: number }[];
const before = Object.getOwnPropertyDescriptor(globalThis, 'window');

beforeEach(() => {
  heard = new Map();
  intervals = [];
  Object.assign(globalThis, {
    window: {
      addEventListener: (type: string, f: Listener) => heard.set(`window ${type}`, f),
      setInterval: (act: () => void, ms: number) => intervals.push({ act, ms }),
      clearInterval: () => (intervals = []),
    },
  });
});
afterAll(() => {
  if (before) Object.defineProperty(globalThis, 'window', before);
  else Reflect.deleteProperty(globalThis, 'window');
});

type Told = {
  begun: { start: Parameters<StrokeTaker['begin']>[0]; samples: Sample[] }[];
  samples: Sample[];
  ends: number;
  abandoned: number;
  cursors: ({ frame: DabFrame; dig: boolean } | null)[];
  beside: boolean[];
  ended: number;
  pens: number;
  captured: number[];
};

function hand(change: (b: Brush) => void = () => undefined, more: Partial<StrokeInputOptions> = {}) {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Test');
  brush.stroke.size = 0.2;
  change(brush);
  const told: Told = {
    begun: [],
    samples: [],
    ends: 0,
    abandoned: 0,
    cursors: [],
    beside: [],
    ended: 0,
    pens: 0,
    captured: [],
  };
  const sculptor = {
    mesh: buildMesh(plane(24, 2)),
    begin: (start: Parameters<StrokeTaker['begin']>[0], samples: Sample[]) => told.begun.push({ start, samples }),
    extend: (samples: readonly Sample[]) => told.samples.push(...samples),
    end: () => Promise.resolve(void told.ends++),
    abandon: () => Promise.resolve(void told.abandoned++),
  };
  const input = new StrokeInput({
    surface: {
      addEventListener: (type: string, f: Listener) => heard.set(type, f),
      getBoundingClientRect: () => ({ left: LEFT, top: TOP }),
      setPointerCapture: (id: number) => told.captured.push(id),
    } as unknown as HTMLElement,
    view: { setCursor: (cursor: Told['cursors'][number]) => told.cursors.push(cursor) } as unknown as ClayView,
    eye: { ray, basis: () => VIEW },
    sculptor: sculptor as unknown as StrokeTaker,
    brush: () => brush,
    symmetry: () => NO_SYMMETRY,
    ready: () => true,
    onHover: () => undefined,
    onEnd: () => told.ended++,
    onPenWithoutPressure: () => told.pens++,
    onBeside: (beside) => told.beside.push(beside),
    ...more,
  });
  let time = 0;
  /** A pointer at a place of the tile, x and y from −2 to 2 across the view. */
  const event = (x: number, y: number, over: Record<string, unknown> = {}) => ({
    clientX: LEFT + ((x + 2) / 4) * SIDE,
    clientY: TOP + ((2 - y) / 4) * SIDE,
    button: 0,
    buttons: 1,
    pointerId: 1,
    pointerType: 'mouse',
    pressure: 0.5,
    tiltX: 0,
    tiltY: 0,
    shiftKey: false,
    timeStamp: (time += 16),
    getCoalescedEvents: () => [],
    ...over,
  });
  return {
    input,
    told,
    brush,
    event,
    say: (type: string, e: unknown = {}) => heard.get(type)!(e),
    cursor: () => told.cursors.at(-1) ?? null,
  };
}

test('press, drag and release are one stroke, with the places under the pointer', async () => {
  const { told, event, say, input } = hand();
  say('pointerdown', event(-0.5, 0.25));
  expect(input.stroking).toBe(true);
  expect(told.captured).toEqual([1]);
  say('pointermove', event(0, 0.25));
  say('pointermove', event(0.5, 0.25));
  say('pointerup', event(0.5, 0.25, { buttons: 0 }));
  await Promise.resolve();
  expect(told.begun).toHaveLength(1);
  expect(told.begun[0].samples[0].origin).toEqual([-0.5, 0.25, 5]);
  expect(told.samples.map((s) => s.origin[0])).toEqual([0, 0.5]);
  expect(told.begun[0].start).toMatchObject({
    brushId: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e',
    dig: false,
    view: VIEW,
  });
  expect(told.begun[0].start).not.toHaveProperty('stencil');
  expect([told.ends, told.ended, input.stroking]).toEqual([1, 1, false]);
});

test('every stroke has a seed of its own', () => {
  const { told, event, say } = hand();
  for (let n = 0; n < 3; n++) {
    say('pointerdown', event(0, 0));
    say('pointerup', event(0, 0));
  }
  expect(new Set(told.begun.map((b) => b.start.seed)).size).toBe(3);
});

test('moves that came together are all taken, in their order', () => {
  const { told, event, say } = hand();
  say('pointerdown', event(0, 0));
  say('pointermove', event(0.3, 0, { getCoalescedEvents: () => [event(0.1, 0), event(0.2, 0), event(0.3, 0)] }));
  expect(told.samples.map((s) => Number(s.origin[0].toFixed(3)))).toEqual([0.1, 0.2, 0.3]);
});

test('beside the body, with another button, or when the left one is for something else, nothing begins', () => {
  let blocked = false;
  const { told, event, say } = hand(undefined, { blocked: () => blocked });
  say('pointerdown', event(1.8, 1.8));
  say('pointerdown', event(0, 0, { button: 2 }));
  blocked = true;
  say('pointerdown', event(0, 0));
  expect(told.begun).toEqual([]);
  expect(told.beside).toEqual([true]);
  expect(told.captured).toEqual([]);
});

test('without a brush, or while a body is opened, nothing begins', () => {
  const none = hand(undefined, { brush: () => null });
  none.say('pointerdown', none.event(0, 0));
  expect(none.told.begun).toEqual([]);
  const pending = hand(undefined, { ready: () => false });
  pending.say('pointerdown', pending.event(0, 0));
  expect(pending.told.begun).toEqual([]);
});

test('a second pointer neither begins a stroke, nor bends or ends the one that runs', () => {
  const { told, event, say, input } = hand();
  say('pointerdown', event(0, 0));
  say('pointerdown', event(0.5, 0.5, { pointerId: 2 }));
  say('pointermove', event(0.5, 0.5, { pointerId: 2 }));
  say('pointerup', event(0.5, 0.5, { pointerId: 2 }));
  expect([told.begun.length, told.samples.length, told.ends, input.stroking]).toEqual([1, 0, 0, true]);
});

test('abandoned, by Esc or because the pointer was taken away, the stroke isn’t ended', () => {
  for (const stop of ['esc', 'pointercancel']) {
    const { told, event, say, input } = hand();
    expect(input.abandon()).toBe(false);
    say('pointerdown', event(0, 0));
    if (stop === 'esc') expect(input.abandon()).toBe(true);
    else say(stop, event(0, 0));
    say('pointermove', event(0.2, 0));
    say('pointerup', event(0.2, 0));
    expect([told.abandoned, told.samples.length, told.ends]).toEqual([1, 0, 0]);
  }
});

test('another pointer that is taken away leaves the stroke; a release that was not heard ends it at the next move', () => {
  const { told, event, say, input } = hand();
  say('pointerdown', event(0, 0));
  say('pointercancel', event(0, 0, { pointerId: 2 }));
  expect(input.stroking).toBe(true);
  say('pointermove', event(0.2, 0));
  say('pointermove', event(0.5, 0, { buttons: 0 }));
  expect([told.ends, told.abandoned, told.samples.length, input.stroking]).toEqual([1, 0, 1, false]);
});

test('a held key digs, and what is held ends when the window is left', () => {
  const { told, event, say, input, cursor } = hand();
  say('pointermove', event(0, 0, { buttons: 0 }));
  expect(cursor()!.dig).toBe(false);
  input.setDig(true);
  expect(cursor()!.dig).toBe(true);
  say('pointerdown', event(0, 0));
  expect(told.begun[0].start.dig).toBe(true);
  say('pointerup', event(0, 0));
  say('window blur');
  expect(input.dig).toBe(false);
});

test('a mouse presses fully; a pen as it says, and one that can’t say is told of once', () => {
  const { told, event, say } = hand();
  say('pointerdown', event(0, 0, { pressure: 0.1 }));
  expect(told.begun[0].samples[0].pressure).toBe(1);
  say('pointerup', event(0, 0));
  const pen = { pointerType: 'pen', pressure: 0.3 };
  say('pointerdown', event(0, 0, pen));
  say('pointermove', event(0.1, 0, { ...pen, pressure: 0.8 }));
  expect([told.begun[1].samples[0].pressure, told.samples.at(-1)!.pressure]).toEqual([0.3, 0.8]);
  expect(told.pens).toBe(0);
  say('pointermove', event(0.2, 0, { ...pen, pressure: 0 }));
  say('pointermove', event(0.3, 0, { ...pen, pressure: 0 }));
  expect(told.samples.at(-1)!.pressure).toBe(1);
  expect(told.pens).toBe(1);
});

test.each([
  ['to the right', 45, 0, 0],
  ['upwards', 0, -45, Math.PI / 2],
  ['to the left', -60, 0, Math.PI],
  ['down and right', 30, 30, -Math.PI / 4],
])('a pen that leans %s says so; an upright one and a mouse say nothing', (_, tiltX, tiltY, lean) => {
  const { told, event, say } = hand();
  say('pointerdown', event(0, 0, { pointerType: 'pen', tiltX, tiltY }));
  const said = told.begun[0].samples[0].lean!;
  expect([Math.cos(said), Math.sin(said)].map((c) => Math.round(c * 1e6) + 0)).toEqual(
    [Math.cos(lean), Math.sin(lean)].map((c) => Math.round(c * 1e6) + 0),
  );
  say('pointermove', event(0.1, 0, { pointerType: 'pen' }));
  say('pointermove', event(0.2, 0, { tiltX, tiltY }));
  expect(told.samples.some((s) => 'lean' in s)).toBe(false);
});

test('a hand that lingers is asked while it rests, at the place and pressure it last had, until it is released', () => {
  const { told, event, say } = hand((b) => (b.stroke.type = 'linger'));
  say('pointerdown', event(0, 0));
  say('pointermove', event(0.4, 0));
  expect(intervals).toHaveLength(1);
  const { length } = told.samples;
  intervals[0].act();
  intervals[0].act();
  expect(told.samples).toHaveLength(length + 2);
  expect(told.samples.at(-1)!.origin[0]).toBeCloseTo(0.4, 9);
  expect(told.samples.at(-1)!.time).toBeGreaterThanOrEqual(told.samples.at(-2)!.time!);
  say('pointerup', event(0.4, 0));
  expect(intervals).toEqual([]);
});

test('with Shift a ruler keeps to steps of 15°; other strokes go where the hand goes', () => {
  const ruler = hand((b) => (b.stroke.type = 'ruler'));
  ruler.say('pointerdown', ruler.event(0, 0));
  ruler.say('pointermove', ruler.event(1, 0.1, { shiftKey: true }));
  expect(ruler.told.samples.at(-1)!.origin[1]).toBeCloseTo(0, 9);
  ruler.say('pointermove', ruler.event(1, 0.1));
  expect(ruler.told.samples.at(-1)!.origin[1]).toBeCloseTo(0.1, 9);
  const trail = hand();
  trail.say('pointerdown', trail.event(0, 0));
  trail.say('pointermove', trail.event(1, 0.1, { shiftKey: true }));
  expect(trail.told.samples.at(-1)!.origin[1]).toBeCloseTo(0.1, 9);
});

test('a stencil goes along with strokes that paint through it, and with no others', () => {
  const rows: StencilRows = { u: [1, 0, 0, 0], v: [0, 1, 0, 0], w: [0, 0, 0, 1] };
  const eye = { ray, basis: () => VIEW, stencil: () => rows };
  const through = hand((b) => (b.stroke.mapping = 'stencil'), { eye });
  through.say('pointerdown', through.event(0, 0));
  expect(through.told.begun[0].start.stencil).toEqual(rows);
  const over = hand(undefined, { eye });
  over.say('pointerdown', over.event(0, 0));
  expect(over.told.begun[0].start).not.toHaveProperty('stencil');
});

test('the cursor lies on the body at the brush’s size, and nowhere when the pointer is beside it or gone', () => {
  const { event, say, cursor, brush, input } = hand();
  say('pointermove', event(0.3, -0.2, { buttons: 0 }));
  expect(cursor()!.frame.radius).toBeCloseTo(0.2, 9);
  expect(cursor()!.frame.origin.map((c) => Number(c.toFixed(6)))).toEqual([0.3, -0.2, 0]);
  expect(cursor()!.frame.normal.map((c) => Number(c.toFixed(6)))).toEqual([0, 0, 1]);
  brush.stroke.size = 0.5;
  input.hover();
  expect(cursor()!.frame.radius).toBeCloseTo(0.5, 9);
  say('pointermove', event(1.9, 0, { buttons: 0 }));
  expect(cursor()).toBeNull();
  say('pointermove', event(0, 0, { buttons: 0 }));
  say('pointerleave');
  expect(cursor()).toBeNull();
});

test('while a stamp is grown the cursor stays at the press and has the size and turn of the drag', () => {
  const { event, say, cursor } = hand((b) => (b.stroke.type = 'grow'));
  say('pointerdown', event(0.1, 0.1));
  say('pointermove', event(0.1, 0.5));
  expect(cursor()!.frame.radius).toBeCloseTo(0.4, 6);
  expect(cursor()!.frame.origin.map((c) => Number(c.toFixed(6)))).toEqual([0.1, 0.1, 0]);
  say('pointermove', event(-0.2, 0.1));
  expect(cursor()!.frame.radius).toBeCloseTo(0.3, 6);
});

test('while clay is moved the cursor goes along with the hand, at the height where it was taken', () => {
  const { event, say, cursor } = hand((b) => (b.touch.action = 'move'));
  say('pointerdown', event(0, 0));
  say('pointermove', event(1.5, 0.5));
  expect(cursor()!.frame.origin.map((c) => Number(c.toFixed(6)))).toEqual([1.5, 0.5, 0]);
  expect(cursor()!.frame.radius).toBeCloseTo(0.2, 9);
});

test('a finger that moves the view lays nothing, wherever it is; a pen beside it strokes', () => {
  const { told, event, say, input } = hand(undefined, { movesView: (e) => e.pointerType === 'touch' });
  say('pointerdown', event(0, 0, { pointerType: 'touch' }));
  expect([told.begun.length, input.stroking, told.beside]).toEqual([0, false, [true]]);
  say('pointerup', event(0, 0, { pointerType: 'touch', buttons: 0 }));
  say('pointerdown', event(0, 0, { pointerType: 'pen', pointerId: 2 }));
  expect([told.begun.length, input.penDown]).toEqual([1, true]);
  // The view stays where it is while the pen is down.
  say('pointerdown', event(0.5, 0.5, { pointerType: 'touch', pointerId: 3 }));
  expect(told.beside).toEqual([true, false]);
  say('pointerup', event(0, 0, { pointerType: 'pen', pointerId: 2, buttons: 0 }));
  expect(input.penDown).toBe(false);
});
