/**
 * The eye round a body: right drag turns, middle or Shift and right drag pans, the wheel goes nearer; two fingers do
 * all three.
 */
import {
  Matrix4,
  MOUSE,
  OrthographicCamera,
  PerspectiveCamera,
  Raycaster,
  Spherical,
  TOUCH,
  Vector2,
  Vector3,
  type Camera,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Ray } from '#core/mesh';
import type { Lasso } from '#core/part';
import { stencilRows, type StencilPlace, type StencilRows, type View } from '#core/stroke';
import type { ClayView } from './clayView';
import type { FingerMove } from './fingers';
import { SIDES, type Side } from './sides';

/** Field of view from top to bottom, degrees, where the view is at least so much wider than high. */
const FIELD = 28;
const ROOMY = 1;

/** Where an eye is and what it looks at. */
export interface Pose {
  position: [number, number, number];
  target: [number, number, number];
  /** Without perspective: what is farther away isn't smaller. */
  parallel: boolean;
}

/** What the left button does to the eye while a key is held. */
export type EyeHand = 'turn' | 'nearer';

/** A parallel eye stands so far behind the one that it is seen from, so that nothing is cut off. */
const BACK = 12;
const RAD_PER_PIXEL = 0.01;
/** Straight from above or below the upright axis has no direction in the view; so close to it it has. */
const UPRIGHT_RAD = 1e-4;

export class BodyEye {
  readonly camera = new PerspectiveCamera(FIELD, 1, 0.4, 24);
  private readonly controls: OrbitControls;
  private readonly caster = new Raycaster();
  private readonly flat = new OrthographicCamera(-1, 1, 1, -1, 0.1, BACK * 4);
  private isParallel = false;

  constructor(
    private readonly view: ClayView,
    surface: HTMLElement,
  ) {
    view.camera = this.camera;
    this.controls = new OrbitControls(this.camera, surface);
    this.controls.mouseButtons = { LEFT: null, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.ROTATE };
    // One finger strokes, or turns what lies beside it, as a left drag does; two are looked at by `fingers`.
    this.controls.touches = { ONE: null, TWO: null };
    this.controls.enableDamping = false;
    this.controls.minDistance = 0.6;
    this.controls.maxDistance = 20;
    this.controls.addEventListener('change', () => this.moved());
    view.onBeforeDraw = () => this.fit();
    this.home();
  }

  /** Called when the eye has moved. */
  onMoved: (pose: Pose) => void = () => undefined;

  get pose(): Pose {
    return {
      position: this.camera.position.toArray(),
      target: this.controls.target.toArray(),
      parallel: this.isParallel,
    };
  }

  /** Puts the eye where another one is. */
  look(pose: Pose): void {
    this.camera.position.fromArray(pose.position);
    this.controls.target.fromArray(pose.target);
    this.camera.lookAt(this.controls.target);
    this.isParallel = pose.parallel;
    this.view.camera = this.seeing;
    this.view.setParallel(pose.parallel);
    this.view.stale();
  }

  home(): void {
    this.look({ position: [0, 0.3, 4.95], target: [0, -0.02, 0], parallel: this.isParallel });
    this.moved();
  }

  setParallel(parallel: boolean): void {
    this.look({ ...this.pose, parallel });
    this.moved();
  }

  /** Straight from one side, as far away as it is. */
  from(side: Side['name']): void {
    const { toward } = SIDES.find(({ name }) => name === side)!;
    this.stand(new Spherical().setFromVector3(new Vector3(...toward)));
  }

  /** Turns the body by a drag of so many pixels. */
  turn(dx: number, dy: number): void {
    const at = new Spherical().setFromVector3(new Vector3().subVectors(this.camera.position, this.controls.target));
    at.theta -= dx * RAD_PER_PIXEL;
    at.phi -= dy * RAD_PER_PIXEL;
    this.stand(at);
  }

  /** Looks at a place of the body from where it looks now. */
  lookAt(place: readonly [number, number, number]): void {
    const { camera, controls } = this;
    camera.position.add(new Vector3(...place).sub(controls.target));
    controls.target.set(...place);
    camera.lookAt(controls.target);
    this.moved();
  }

  /** What a left drag does wherever it begins, while a key is held; null leaves it to strokes. */
  hold(hand: EyeHand | null): void {
    this.controls.mouseButtons.LEFT = hand === null ? null : hand === 'turn' ? MOUSE.ROTATE : MOUSE.DOLLY;
    this.controls.touches.ONE = hand === 'turn' ? TOUCH.ROTATE : null;
  }

  private stand(at: Spherical): void {
    const { camera, controls } = this;
    at.radius = camera.position.distanceTo(controls.target);
    at.phi = Math.max(UPRIGHT_RAD, Math.min(Math.PI - UPRIGHT_RAD, at.phi));
    camera.position.copy(controls.target).add(new Vector3().setFromSpherical(at));
    camera.lookAt(controls.target);
    this.moved();
  }

  private moved(): void {
    this.view.stale();
    this.onMoved(this.pose);
  }

  /** The camera that draws and is pointed through. */
  private get seeing(): Camera {
    return this.isParallel ? this.flat : this.camera;
  }

  /** Whether a left drag turns the body: it does when it begins beside it. */
  leftTurns(turns: boolean): void {
    this.controls.mouseButtons.LEFT = turns ? MOUSE.ROTATE : null;
    this.controls.touches.ONE = turns ? TOUCH.ROTATE : null;
  }

  /**
   * Two fingers: together they pan, apart they go nearer, round each other they turn the body about its upright axis.
   */
  fingers({ dx, dy, factor, turnRad }: FingerMove): void {
    const { camera } = this;
    const { target, minDistance, maxDistance } = this.controls;
    const arm = new Vector3().subVectors(camera.position, target);
    const perPixel = (2 * arm.length() * Math.tan((camera.fov * Math.PI) / 360)) / this.view.height;
    const { right, up } = this.basis();
    const shift = new Vector3(...right)
      .multiplyScalar(-dx * perPixel)
      .addScaledVector(new Vector3(...up), dy * perPixel);
    arm
      .applyAxisAngle(camera.up, -turnRad)
      .setLength(Math.max(minDistance, Math.min(maxDistance, arm.length() / factor)));
    target.add(shift);
    camera.position.addVectors(target, arm);
    this.controls.update();
    this.moved();
  }

  /** Ray through a point given in CSS pixels from the view's upper left corner. */
  ray(x: number, y: number): Ray {
    this.fit();
    const at = new Vector2((x / this.view.width) * 2 - 1, 1 - (y / this.view.height) * 2);
    this.caster.setFromCamera(at, this.seeing as PerspectiveCamera | OrthographicCamera);
    const { origin: o, direction: d } = this.caster.ray;
    return { origin: [o.x, o.y, o.z], direction: [d.x, d.y, d.z] };
  }

  basis(): View {
    this.camera.updateMatrixWorld();
    const [x, y, z] = [new Vector3(), new Vector3(), new Vector3()];
    this.camera.matrixWorld.extractBasis(x, y, z);
    return { right: x.toArray(), up: y.toArray(), toward: z.toArray() };
  }

  /** Where a point of the body is seen, CSS pixels from the view's upper left corner. */
  seen(point: readonly [number, number, number]): { x: number; y: number } {
    this.fit();
    const at = new Vector3(...point).project(this.seeing);
    return { x: ((at.x + 1) / 2) * this.view.width, y: ((1 - at.y) / 2) * this.view.height };
  }

  /** An outline that was drawn over the view, CSS pixels, and how the body is seen. */
  lasso(outline: readonly { x: number; y: number }[]): Lasso {
    this.fit();
    const { seeing } = this;
    const { toward } = this.basis();
    return {
      outline: outline.map(({ x, y }) => [(x / this.view.width) * 2 - 1, 1 - (y / this.view.height) * 2]),
      matrix: new Matrix4().multiplyMatrices(seeing.projectionMatrix, seeing.matrixWorldInverse).toArray(),
      eye: this.isParallel ? toward : this.camera.position.toArray(),
      parallel: this.isParallel,
    };
  }

  /** The projection of a stencil that lies over the view. */
  stencil(place: StencilPlace): StencilRows {
    this.fit();
    const { seeing } = this;
    const m = new Matrix4().multiplyMatrices(seeing.projectionMatrix, seeing.matrixWorldInverse).elements;
    const row = (k: number) => [m[k], m[k + 4], m[k + 8], m[k + 12]] as const;
    return stencilRows({ x: row(0), y: row(1), w: row(3) }, this.view.width / this.view.height, place);
  }

  dispose(): void {
    this.controls.dispose();
  }

  private fit(): void {
    const aspect = this.view.width / this.view.height;
    this.camera.aspect = aspect;
    // A view that is narrower than the body is wide sees more, so that nothing of it is cut.
    this.camera.fov =
      aspect >= ROOMY ? FIELD : (Math.atan((Math.tan((FIELD * Math.PI) / 360) * ROOMY) / aspect) * 360) / Math.PI;
    this.camera.updateProjectionMatrix();
    this.camera.updateMatrixWorld();
    if (this.isParallel) this.fitFlat(aspect);
  }

  /** The parallel eye sees as much as the other one does where it looks. */
  private fitFlat(aspect: number): void {
    const { camera, flat } = this;
    const arm = new Vector3().subVectors(camera.position, this.controls.target);
    const half = arm.length() * Math.tan((camera.fov * Math.PI) / 360);
    Object.assign(flat, { left: -half * aspect, right: half * aspect, top: half, bottom: -half });
    flat.position.copy(camera.position).addScaledVector(arm.normalize(), BACK);
    flat.quaternion.copy(camera.quaternion);
    flat.updateProjectionMatrix();
    flat.updateMatrixWorld();
  }
}
