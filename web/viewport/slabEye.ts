/** The eye straight above a slab: orthographic, panned, zoomed towards the pointer and turned in its own plane. */
import { OrthographicCamera } from 'three';
import { reactive } from 'vue';
import type { Ray } from '#core/mesh';
import type { View } from '#core/stroke';
import type { ClayView } from './clayView';
import type { FingerMove } from './fingers';

export interface SlabEyeState {
  /** Point of the slab in the middle of the view, body units. */
  x: number;
  y: number;
  /** CSS pixels to a body unit. */
  scale: number;
  turnRad: number;
}

/** Where a place on the slab is seen, CSS pixels from the view's corner. */
export function toScreen(eye: SlabEyeState, width: number, height: number, x: number, y: number): [number, number] {
  const c = Math.cos(-eye.turnRad);
  const s = Math.sin(-eye.turnRad);
  const dx = (x - eye.x) * eye.scale;
  const dy = (y - eye.y) * eye.scale;
  return [width / 2 + dx * c - dy * s, height / 2 - (dx * s + dy * c)];
}

/** The place on the slab that is seen there. */
export function fromScreen(eye: SlabEyeState, width: number, height: number, x: number, y: number): [number, number] {
  const c = Math.cos(eye.turnRad);
  const s = Math.sin(eye.turnRad);
  const dx = (x - width / 2) / eye.scale;
  const dy = (height / 2 - y) / eye.scale;
  return [eye.x + dx * c - dy * s, eye.y + dx * s + dy * c];
}

const HEIGHT = 6;
/** CSS pixels to a body unit. */
const LEAST_SCALE = 40;
const MOST_SCALE = 20_000;

export class SlabEye {
  readonly state: SlabEyeState = reactive({ x: 0, y: 0, scale: 300, turnRad: 0 });
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0.1, 2 * HEIGHT);
  private touched = false;

  constructor(private readonly view: ClayView) {
    view.camera = this.camera;
    view.onBeforeDraw = () => this.apply();
    this.home();
  }

  /** The whole slab, upright. */
  home(): void {
    this.touched = false;
    Object.assign(this.state, { x: 0, y: 0, turnRad: 0 });
    this.refit();
  }

  /** After the view changed size: an eye that nobody moved shows the whole slab again. */
  refit(): void {
    if (!this.touched) this.state.scale = Math.max(20, Math.min(this.view.width, this.view.height) / 2.14);
    this.view.stale();
  }

  /** A square of that side about a place fills two thirds of the view. */
  lookAt(x: number, y: number, side: number): void {
    this.touched = true;
    const scale = (Math.min(this.view.width, this.view.height) * 2) / 3 / Math.max(side, 1e-3);
    Object.assign(this.state, { x, y, scale: Math.max(LEAST_SCALE, Math.min(MOST_SCALE, scale)) });
    this.view.stale();
  }

  pan(dx: number, dy: number): void {
    this.touched = true;
    const [x, y] = this.turned(-dx / this.state.scale, dy / this.state.scale);
    this.state.x += x;
    this.state.y += y;
    this.view.stale();
  }

  /** Keeps the point under (x, y), CSS pixels from the view's corner, where it is. */
  zoom(factor: number, x: number, y: number): void {
    this.touched = true;
    const before = this.onSlab(x, y);
    this.state.scale = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, this.state.scale * factor));
    const after = this.onSlab(x, y);
    this.state.x += before[0] - after[0];
    this.state.y += before[1] - after[1];
    this.view.stale();
  }

  turn(byRad: number): void {
    this.touched = true;
    this.state.turnRad = Math.atan2(Math.sin(this.state.turnRad + byRad), Math.cos(this.state.turnRad + byRad));
    this.view.stale();
  }

  /** Two fingers: the places under them stay under them. */
  fingers({ dx, dy, factor, turnRad, x, y }: FingerMove): void {
    this.pan(dx, dy);
    this.zoom(factor, x, y);
    const before = this.onSlab(x, y);
    this.turn(turnRad);
    const after = this.onSlab(x, y);
    this.state.x += before[0] - after[0];
    this.state.y += before[1] - after[1];
  }

  onSlab(x: number, y: number): [number, number] {
    return fromScreen(this.state, this.view.width, this.view.height, x, y);
  }

  ray(x: number, y: number): Ray {
    const [sx, sy] = this.onSlab(x, y);
    return { origin: [sx, sy, HEIGHT], direction: [0, 0, -1] };
  }

  /** Where a point of the clay is seen, CSS pixels from the view's corner. */
  seen([x, y]: readonly [number, number, number]): { x: number; y: number } {
    const [sx, sy] = toScreen(this.state, this.view.width, this.view.height, x, y);
    return { x: sx, y: sy };
  }

  basis(): View {
    const [rx, ry] = this.turned(1, 0);
    return { right: [rx, ry, 0], up: [-ry, rx, 0], toward: [0, 0, 1] };
  }

  private turned(x: number, y: number): [number, number] {
    const c = Math.cos(this.state.turnRad);
    const s = Math.sin(this.state.turnRad);
    return [x * c - y * s, x * s + y * c];
  }

  private apply(): void {
    const { camera, state, view } = this;
    camera.left = -view.width / 2 / state.scale;
    camera.right = -camera.left;
    camera.top = view.height / 2 / state.scale;
    camera.bottom = -camera.top;
    camera.position.set(state.x, state.y, HEIGHT);
    const [ux, uy] = this.turned(0, 1);
    camera.up.set(ux, uy, 0);
    camera.lookAt(state.x, state.y, 0);
    camera.updateProjectionMatrix();
  }
}
