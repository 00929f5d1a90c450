/**
 * Two fingers on a view: moved together they pan, apart they zoom, round each other they turn. What one finger began is
 * dropped when the second one comes down, and the one that is left at the end does nothing more.
 */

export interface FingerMove {
  /** CSS pixels. */
  dx: number;
  dy: number;
  /** Above 1 the fingers went apart. */
  factor: number;
  /** Clockwise as seen. */
  turnRad: number;
  /** Between the fingers, CSS pixels from the view's corner. */
  x: number;
  y: number;
}

export interface FingerOptions {
  /** The second finger came down: what the first one began is to be dropped. */
  began: () => void;
  moved: (by: FingerMove) => void;
  /** Whether a finger that comes down now is a resting hand. */
  rests?: () => boolean;
}

interface Place {
  x: number;
  y: number;
}

export class Fingers {
  private readonly down = new Map<number, Place>();
  private two = false;
  private readonly off = new AbortController();

  /** To be made before other listeners of the surface, so that they can ask whether fingers are `busy`. */
  constructor(
    private readonly surface: HTMLElement,
    private readonly o: FingerOptions,
  ) {
    const on = (
      type: 'pointerdown' | 'pointermove' | 'pointerup' | 'pointercancel',
      f: (e: PointerEvent) => void,
    ): void => {
      surface.addEventListener(type, (e) => e.pointerType === 'touch' && f(e), {
        signal: this.off.signal,
        capture: true,
      });
    };
    on('pointerdown', (e) => {
      if (o.rests?.()) return;
      this.down.set(e.pointerId, this.place(e));
      if (this.down.size !== 2) return;
      this.two = true;
      o.began();
    });
    on('pointermove', (e) => this.move(e));
    for (const type of ['pointerup', 'pointercancel'] as const) {
      on(type, (e) => {
        this.down.delete(e.pointerId);
        if (this.down.size === 0) this.two = false;
      });
    }
  }

  /** From the second finger's coming down until the last one is lifted. */
  get busy(): boolean {
    return this.two;
  }

  dispose(): void {
    this.off.abort();
  }

  private move(e: PointerEvent): void {
    const was = this.down.get(e.pointerId);
    if (!was) return;
    const now = this.place(e);
    this.down.set(e.pointerId, now);
    const [other] = [...this.down].filter(([id]) => id !== e.pointerId).map(([, place]) => place);
    if (!this.two || this.down.size !== 2 || !other) return;
    const before = { x: was.x - other.x, y: was.y - other.y };
    const after = { x: now.x - other.x, y: now.y - other.y };
    const length = Math.hypot(before.x, before.y);
    // Fingers on one spot say nothing about size and turn.
    const apart = length > 8 && Math.hypot(after.x, after.y) > 8;
    this.o.moved({
      dx: (now.x - was.x) / 2,
      dy: (now.y - was.y) / 2,
      x: (now.x + other.x) / 2,
      y: (now.y + other.y) / 2,
      factor: apart ? Math.hypot(after.x, after.y) / length : 1,
      turnRad: apart ? Math.atan2(before.x * after.y - before.y * after.x, before.x * after.x + before.y * after.y) : 0,
    });
  }

  private place(e: PointerEvent): Place {
    const box = this.surface.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  }
}
