/**
 * From the pointer to strokes: hover shows the cursor, the left button strokes, Esc abandons what isn't released,
 * a held D digs. What lies under the pointer is looked up here, in the shared memory, without asking the worker.
 */
import { dabFrame, groundNow, placeAt, shapedGround, type DabFrame, type Ground } from '#core/brush';
import { pick, type MeshArrays, type Ray } from '#core/mesh';
import type { Brush, Symmetry } from '#core/settings';
import { onFacingPlane, type Sample, type StencilRows, type StrokeStart, type View } from '#core/stroke';
import type { ClayView } from './clayView';
import { snapped } from './snap';

export interface Eye {
  ray(x: number, y: number): Ray;
  basis(): View;
  /** Where the stencil lies, of an eye that can have one over it. */
  stencil?: () => StencilRows;
}

/** What takes the strokes. */
export interface StrokeTaker {
  readonly mesh: MeshArrays | null;
  begin(start: Omit<StrokeStart, 'brush'> & { brushId: string }, samples: Sample[]): void;
  extend(samples: readonly Sample[]): void;
  end(): Promise<void>;
  abandon(): Promise<void>;
}

export interface StrokeInputOptions {
  surface: HTMLElement;
  view: ClayView;
  eye: Eye;
  sculptor: StrokeTaker;
  brush: () => Brush | null;
  symmetry: () => Symmetry;
  /** Whether strokes may begin now. */
  ready: () => boolean;
  /** Whether what strokes wait for is on its way: they are kept until `arrived` says so. */
  comes?: () => boolean;
  /** Whether the left button is for something else just now. */
  blocked?: () => boolean;
  /** `at` is the pointer, CSS pixels in the view. */
  onHover: (frame: DabFrame | null, at: { x: number; y: number } | null) => void;
  onEnd: () => void;
  /** Pieces that strokes go on; null is the body. */
  on?: () => readonly string[] | null;
  /** Whether strokes keep the settings they are drawn with. */
  stays?: () => boolean;
  /** The layer that paint goes on. */
  layer?: () => { layer: string; mask: boolean } | null;
  /** What the pointer meets; null is the body. */
  ground?: () => MeshArrays | null;
  /** Which of the brush's parts was picked by hand; null leaves it to the set. */
  part?: () => number | null;
  onPenWithoutPressure?: () => void;
  /** Where a single stamp is set for a place of the pointer. */
  settle?: (at: { x: number; y: number }) => { x: number; y: number };
  /** A single stamp was laid. */
  onStamped?: (origin: readonly [number, number, number]) => void;
  /** A left drag that begins beside the body. */
  onBeside?: (beside: boolean) => void;
  /** Whether this press is a finger's that moves the view, wherever it is. */
  movesView?: (e: PointerEvent) => boolean;
}

/** How often a hand that lingers is asked. */
const REST_MS = 25;

/** Stroke types that lay one stamp. */
const SINGLE: readonly string[] = ['press', 'grow', 'pull'];

interface Pressed {
  id: number;
  pen: boolean;
  origin: readonly [number, number, number];
  frame: DabFrame;
}

/** A stroke that was drawn before the brush or the body was there. */
interface Waiting {
  id: number;
  pen: boolean;
  samples: Sample[];
  ended: boolean;
}

export class StrokeInput {
  dig = false;
  private readonly waiting: Waiting[] = [];
  private toldOfPen = false;
  private pressed: Pressed | null = null;
  private last: { x: number; y: number } | null = null;
  private begunAt: { x: number; y: number } | null = null;
  private lastSample: Sample | null = null;
  private shown: DabFrame | null = null;
  /** The timer of a hand that rests. */
  private rest = 0;
  /** Of the next stroke. */
  seed = 1;
  private readonly off = new AbortController();
  private ground: { mesh: MeshArrays; now: Ground } | null = null;

  constructor(private readonly o: StrokeInputOptions) {
    const { surface } = o;
    const on = <K extends keyof HTMLElementEventMap>(type: K, f: (e: HTMLElementEventMap[K]) => void): void => {
      surface.addEventListener(type, f, { signal: this.off.signal, capture: true });
    };
    on('pointerdown', (e) => this.down(e));
    on('pointermove', (e) => this.move(e));
    on('pointerup', (e) => this.up(e));
    on('pointercancel', (e) => {
      if (e.pointerId === this.pressed?.id || e.pointerId === this.drawing?.id) this.abandon();
    });
    on('pointerleave', () => {
      this.last = null;
      if (!this.pressed) this.hover();
    });
    window.addEventListener('blur', () => this.setDig(false), { signal: this.off.signal });
  }

  private get mesh(): MeshArrays | null {
    return this.o.ground?.() ?? this.o.sculptor.mesh;
  }

  /** A pen is on the clay: fingers that lie beside it do nothing. */
  get penDown(): boolean {
    return this.pressed?.pen ?? false;
  }

  get stroking(): boolean {
    return this.pressed !== null || this.drawing !== null;
  }

  setDig(dig: boolean): void {
    if (this.dig === dig) return;
    this.dig = dig;
    this.hover();
  }

  /** The stroke that is being drawn ahead of its brush. */
  private get drawing(): Waiting | null {
    const last = this.waiting.at(-1);
    return last && !last.ended ? last : null;
  }

  /** What strokes waited for is there: they are laid as they were drawn, in their order. */
  arrived(): void {
    while (this.waiting.length > 0 && this.o.ready() && !this.pressed) {
      const { id, pen, samples, ended } = this.waiting.shift()!;
      const brush = this.o.brush();
      const frame = brush && this.frameAt(samples[0], brush);
      if (!brush || !frame) continue;
      this.o.sculptor.begin(this.start(brush), [samples[0]]);
      if (samples.length > 1) this.o.sculptor.extend(samples.slice(1));
      if (ended) {
        if (SINGLE.includes(brush.stroke.type)) this.o.onStamped?.(frame.origin);
        void this.o.sculptor.end().then(this.o.onEnd, this.o.onEnd);
        continue;
      }
      // The hand is still drawing it.
      this.pressed = { id, pen, origin: frame.origin, frame };
      this.lastSample = samples[samples.length - 1];
      if (brush.stroke.type === 'linger') this.rest = window.setInterval(() => this.resting(), REST_MS);
      this.show(brush, frame);
    }
  }

  /** What strokes waited for isn't coming. */
  forgetWaiting(): number {
    return this.waiting.splice(0).length;
  }

  /** Takes back the running stroke, or the last that waits for its brush; false when there is none. */
  abandon(): boolean {
    if (this.waiting.length > 0) {
      this.waiting.pop();
      return true;
    }
    if (!this.pressed) return false;
    this.release();
    void this.o.sculptor.abandon();
    this.hover();
    return true;
  }

  /** Shows the cursor where the pointer was last, e.g. after a setting changed. */
  hover(): void {
    const brush = this.o.brush();
    const frame =
      brush && this.last && !this.pressed ? this.frameAt(this.rayAt(this.settled(this.last, true)), brush) : null;
    this.show(brush, frame);
  }

  /** Lays one stamp at a place of the view, of the brush's own size and turn; what is grown is dragged out to it. */
  async stampAt(at: { x: number; y: number }): Promise<void> {
    const brush = this.o.brush();
    const frame = brush && this.frameAt(this.rayAt(at), brush);
    if (!brush || !frame || this.pressed || !this.o.ready()) return;
    const { right } = this.o.eye.basis();
    const { origin: o } = frame;
    const ray = this.rayAt(at);
    const out = ([0, 1, 2] as const).map((k) => o[k] + right[k] * brush.stroke.size - ray.origin[k]);
    const grown: Ray = { origin: ray.origin, direction: [out[0], out[1], out[2]] };
    this.o.sculptor.begin(this.start(brush), brush.stroke.type === 'grow' ? [ray, grown] : [ray]);
    await this.o.sculptor.end();
    this.o.onStamped?.(o);
    this.o.onEnd();
  }

  /** What a stroke begins with, its next seed among it. */
  private start(brush: Brush): Parameters<StrokeTaker['begin']>[0] {
    const { symmetry, eye } = this.o;
    const part = this.o.part?.() ?? null;
    const on = this.o.on?.() ?? null;
    const layer = this.o.layer?.() ?? null;
    return {
      brushId: brush.id,
      seed: this.seed++,
      dig: this.dig,
      symmetry: symmetry(),
      view: eye.basis(),
      ...(brush.stroke.mapping === 'stencil' && eye.stencil ? { stencil: eye.stencil() } : {}),
      ...(part === null ? {} : { part }),
      ...(on === null ? {} : { on }),
      ...(layer === null ? {} : { layer }),
      ...(this.o.stays?.() ? { stays: true } : {}),
    };
  }

  dispose(): void {
    this.off.abort();
  }

  private down(e: PointerEvent): void {
    if (e.button !== 0 || this.o.blocked?.()) return;
    // A finger beside a pen is a resting hand.
    if (e.pointerType === 'touch' && this.pressed) return;
    if (this.o.movesView?.(e)) return this.o.onBeside?.(true);
    const brush = this.o.brush();
    if (this.pressed || !brush) return;
    this.arrived();
    if (this.waiting.length > 0 || !this.o.ready()) return this.wait(e, brush);
    this.last = this.place(e);
    const frame = this.frameAt(this.rayAt(this.settled(this.last, true)), brush);
    this.o.onBeside?.(frame === null);
    if (!frame) return;
    this.o.surface.setPointerCapture(e.pointerId);
    this.pressed = { id: e.pointerId, pen: e.pointerType === 'pen', origin: frame.origin, frame };
    this.o.sculptor.begin(this.start(brush), [this.sample(e, true)]);
    this.begunAt = this.last;
    this.lastSample = this.sample(e, true);
    if (brush.stroke.type === 'linger') this.rest = window.setInterval(() => this.resting(), REST_MS);
    this.show(brush, frame);
  }

  /** A press ahead of its brush is kept with all that the hand does until the release. */
  private wait(e: PointerEvent, brush: Brush): void {
    if (this.drawing || !this.o.comes?.()) return;
    const first = this.sample(e, true);
    const beside = this.mesh !== null && this.frameAt(first, brush) === null;
    this.o.onBeside?.(beside);
    if (beside) return;
    this.o.surface.setPointerCapture(e.pointerId);
    this.waiting.push({ id: e.pointerId, pen: e.pointerType === 'pen', samples: [first], ended: false });
  }

  private move(e: PointerEvent): void {
    const { drawing } = this;
    if (drawing && !this.pressed && e.pointerId === drawing.id) {
      if (e.buttons === 0) return this.up(e);
      const events = e.getCoalescedEvents();
      drawing.samples.push(...(events.length > 0 ? events : [e]).map((event) => this.sample(event)));
      this.last = this.place(e);
      return;
    }
    // A cursor that is being changed stays where it is.
    if (e.buttons !== 0 && !this.pressed && this.o.blocked?.()) return;
    this.last = this.place(e);
    if (!this.pressed) {
      if (e.buttons === 0) this.hover();
      return;
    }
    if (e.pointerId !== this.pressed.id) return;
    // The release was not heard, as when the window was left in the middle of it.
    if (e.buttons === 0) return this.up(e);
    const events = e.getCoalescedEvents();
    const samples = (events.length > 0 ? events : [e]).map((event) => this.sample(event));
    this.lastSample = samples[samples.length - 1];
    this.o.sculptor.extend(samples);
    this.follow(samples[samples.length - 1]);
  }

  private up(e: PointerEvent): void {
    const { drawing } = this;
    if (drawing && !this.pressed && e.pointerId === drawing.id) {
      drawing.ended = true;
      return this.arrived();
    }
    if (!this.pressed || e.pointerId !== this.pressed.id) return;
    const type = this.o.brush()?.stroke.type;
    if (this.shown && type && SINGLE.includes(type)) this.o.onStamped?.(this.shown.origin);
    this.release();
    // What can't be laid is told by the sculptor; the hand goes on either way.
    const ended = (): void => {
      this.hover();
      this.o.onEnd();
    };
    void this.o.sculptor.end().then(ended, ended);
  }

  private release(): void {
    this.pressed = null;
    window.clearInterval(this.rest);
  }

  /** A hand that lingers goes on where it is. */
  private resting(): void {
    if (this.lastSample) this.o.sculptor.extend([{ ...this.lastSample, time: performance.now() }]);
  }

  /** The cursor during a stroke: grown from the press, or carried along. */
  private follow(ray: Ray): void {
    const brush = this.o.brush();
    const { pressed } = this;
    if (!brush || !pressed) return;
    if (brush.stroke.type !== 'grow' || brush.touch.action === 'move') {
      const carried = brush.touch.action === 'move' ? this.carried(ray, pressed) : this.frameAt(ray, brush);
      this.show(brush, carried);
      return;
    }
    const { toward } = this.o.eye.basis();
    const at = onFacingPlane(ray, pressed.origin, toward);
    if (!at) return;
    const drawn = [at[0] - pressed.origin[0], at[1] - pressed.origin[1], at[2] - pressed.origin[2]] as const;
    const radius = Math.hypot(...drawn);
    const { mesh } = this;
    const hit =
      mesh &&
      pick(mesh, {
        origin: [
          pressed.origin[0] + toward[0] * 4,
          pressed.origin[1] + toward[1] * 4,
          pressed.origin[2] + toward[2] * 4,
        ],
        direction: [-toward[0], -toward[1], -toward[2]],
      });
    if (!hit || radius === 0) return;
    const frame = this.frameOn(
      { ...hit, x: pressed.origin[0], y: pressed.origin[1], z: pressed.origin[2] },
      brush,
      drawn,
      radius,
    );
    this.show(brush, frame);
  }

  private carried(ray: Ray, pressed: Pressed): DabFrame | null {
    const at = onFacingPlane(ray, pressed.origin, this.o.eye.basis().toward);
    return at && { ...pressed.frame, origin: at };
  }

  private frameAt(ray: Ray, brush: Brush): DabFrame | null {
    const { mesh } = this;
    const hit = mesh && pick(mesh, ray);
    return hit ? this.frameOn(hit, brush, this.o.eye.basis().right, brush.stroke.size) : null;
  }

  private frameOn(
    hit: NonNullable<ReturnType<typeof pick>>,
    brush: Brush,
    along: readonly [number, number, number],
    radius: number,
  ): DabFrame | null {
    const { mesh } = this;
    if (!mesh) return null;
    if (this.ground?.mesh !== mesh) this.ground = { mesh, now: groundNow(mesh, new Uint32Array(mesh.leafCount)) };
    const { up, toward } = this.o.eye.basis();
    return dabFrame(
      {
        ...placeAt(hit),
        radius,
        footing: brush.touch.footing / 100,
        along,
        instead: up,
        turnRad: (brush.form.turn * Math.PI) / 180,
        facing: brush.stroke.mapping === 'view' ? toward : null,
      },
      this.ground.now,
    );
  }

  private show(brush: Brush | null, frame: DabFrame | null): void {
    this.shown = frame;
    this.o.view.setCursor(
      brush &&
        frame && {
          frame,
          square: brush.form.footprint === 'square',
          reach: brush.touch.reachDepth,
          fit: brush.form.fit,
          ground: shapedGround(brush.form),
          dig: this.dig,
        },
    );
    this.o.onHover(frame, this.last);
  }

  private sample(e: PointerEvent, begins = false): Sample {
    const at = this.settled(this.straight(this.place(e), e.shiftKey), begins);
    return { ...this.o.eye.ray(at.x, at.y), pressure: this.pressure(e), time: e.timeStamp, ...leanOf(e) };
  }

  /** A stamp that is slid is settled all the way, one that is dragged out where it begins. */
  private settled(at: { x: number; y: number }, begins: boolean): { x: number; y: number } {
    const type = this.o.brush()?.stroke.type;
    const settles = type === 'press' || (begins && (type === 'grow' || type === 'pull'));
    return settles ? (this.o.settle?.(at) ?? at) : at;
  }

  private rayAt({ x, y }: { x: number; y: number }): Ray {
    return this.o.eye.ray(x, y);
  }

  /** Shift keeps a ruler to steps of 15° as seen. */
  private straight(at: { x: number; y: number }, shift: boolean): { x: number; y: number } {
    if (!shift || !this.begunAt || !this.pressed || this.o.brush()?.stroke.type !== 'ruler') return at;
    return snapped(this.begunAt, at);
  }

  /** A mouse presses fully, and so does a pen that sends no pressure. */
  private pressure(e: PointerEvent): number {
    if (e.pointerType !== 'pen') return 1;
    if (e.pressure > 0) return e.pressure;
    if (!this.toldOfPen) this.o.onPenWithoutPressure?.();
    this.toldOfPen = true;
    return 1;
  }

  private place(e: MouseEvent): { x: number; y: number } {
    const box = this.o.surface.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  }
}

/** Which way a pen leans, as the view sees it; none for a pen that stands upright or can't tell. */
function leanOf(e: PointerEvent): { lean?: number } {
  if (e.pointerType !== 'pen' || (e.tiltX === 0 && e.tiltY === 0)) return {};
  return { lean: Math.atan2(-Math.tan((e.tiltY * Math.PI) / 180), Math.tan((e.tiltX * Math.PI) / 180)) };
}
