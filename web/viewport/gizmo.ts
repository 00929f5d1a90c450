/**
 * Three's handles for moving, turning and sizing freely, drawn over the clay. What is moved is told as a move of space
 * since the press.
 */
import { Matrix4, Object3D, Scene, Vector3, type Camera } from 'three';
import { TransformControls } from 'three/addons/controls/TransformControls.js';
import type { Placement } from '#core/scene';

export const GIZMO_HANDS = ['move', 'turn', 'size'] as const;
export type GizmoHand = (typeof GIZMO_HANDS)[number];
/** Rust, moss and slate, and ochre under the pointer. */
const [ACROSS, FORWARD, UP, ACTIVE] = ['#b4533a', '#6f8a3c', '#3f6f9c', '#e0a63a'];
const MODES = { move: 'translate', turn: 'rotate', size: 'scale' } as const;

export interface GizmoOptions {
  camera: () => Camera;
  /** It is to be drawn again. */
  stale: () => void;
}

/** Places of the view, −1 to 1, in the shape of an event as the handles look at it. */
const seenAt = (x: number, y: number, button: number): PointerEvent => ({ x, y, button }) as PointerEvent;
const PRESSED = 0;
const DRAGGED = -1;

export class Gizmo {
  readonly scene = new Scene();
  private readonly pivot = new Object3D();
  /** Without an element of its own: whoever hears the pointer says whose it is. */
  private readonly controls: TransformControls;
  private before = new Matrix4();

  constructor(private readonly o: GizmoOptions) {
    this.controls = new TransformControls(o.camera());
    this.controls.size = 0.8;
    this.controls.space = 'local';
    this.controls.setColors(ACROSS, FORWARD, UP, ACTIVE);
    this.scene.add(this.pivot, this.controls.getHelper());
    this.controls.addEventListener('change', () => o.stale());
  }

  get dragging(): boolean {
    return this.controls.dragging;
  }

  /** Stands where these stand, and as they do where it is one; none takes it off. */
  show(hand: GizmoHand | null, places: readonly Placement[]): void {
    if (this.dragging) return;
    if (hand === null || places.length === 0) this.controls.detach();
    else {
      this.stand(places);
      this.controls.setMode(MODES[hand]);
      this.controls.attach(this.pivot);
    }
    this.o.stale();
  }

  private stand(places: readonly Placement[]): void {
    const { pivot } = this;
    pivot.position.setScalar(0);
    for (const { origin } of places) pivot.position.add(new Vector3(...origin).divideScalar(places.length));
    pivot.scale.setScalar(1);
    pivot.quaternion.identity();
    if (places.length === 1) {
      const [{ across, forward, up }] = places;
      const [x, y, z] = [across, forward, up].map((axis) => new Vector3(...axis).normalize());
      // A mirrored one has no turn of its own: its across is looked at from the other side.
      if (x.clone().cross(y).dot(z) < 0) x.negate();
      pivot.quaternion.setFromRotationMatrix(new Matrix4().makeBasis(x, y, z));
    }
    pivot.updateMatrixWorld(true);
  }

  /** The pointer is there, and nothing is pressed: what is under it lights up. */
  hover(x: number, y: number): void {
    if (!this.controls.object || this.dragging) return;
    this.follow();
    this.controls.pointerHover(seenAt(x, y, PRESSED));
  }

  /** Takes the press where it is on a handle. */
  press(x: number, y: number): boolean {
    this.hover(x, y);
    if (!this.controls.object || this.controls.axis === null) return false;
    this.follow();
    this.controls.pointerDown(seenAt(x, y, PRESSED));
    this.pivot.updateMatrix();
    this.before = this.pivot.matrix.clone().invert();
    return this.dragging;
  }

  /** Columns of the move of space since the press, one behind the other. */
  drag(x: number, y: number): readonly number[] {
    this.controls.pointerMove(seenAt(x, y, DRAGGED));
    this.pivot.updateMatrix();
    return this.pivot.matrix.clone().multiply(this.before).toArray();
  }

  release(): void {
    this.controls.pointerUp(seenAt(0, 0, PRESSED));
  }

  /** Before it is drawn, and before it is looked for under the pointer. */
  follow(): void {
    this.controls.camera = this.o.camera();
    this.scene.updateMatrixWorld();
  }

  dispose(): void {
    this.controls.detach();
    this.controls.getHelper().dispose();
  }
}
