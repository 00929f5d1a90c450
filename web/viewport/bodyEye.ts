/**
 * The eye round a body: right drag turns, middle or Shift and right drag pans, the wheel goes nearer; two fingers do
 * all three.
 */
import { Matrix4, MOUSE, PerspectiveCamera, Raycaster, TOUCH, Vector2, Vector3 } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Ray } from '#core/mesh';
import { stencilRows, type StencilPlace, type StencilRows, type View } from '#core/stroke';
import type { ClayView } from './clayView';
import type { FingerMove } from './fingers';

/** Field of view from top to bottom, degrees, where the view is at least so much wider than high. */
const FIELD = 28;
const ROOMY = 1;

/** Where an eye is and what it looks at. */
export interface Pose {
  position: [number, number, number];
  target: [number, number, number];
}

export class BodyEye {
  readonly camera = new PerspectiveCamera(FIELD, 1, 0.4, 24);
  private readonly controls: OrbitControls;
  private readonly caster = new Raycaster();

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
    this.controls.addEventListener('change', () => {
      view.stale();
      this.onMoved(this.pose);
    });
    view.onBeforeDraw = () => this.fit();
    this.home();
  }

  /** Called when the hand has moved the eye. */
  onMoved: (pose: Pose) => void = () => undefined;

  get pose(): Pose {
    return { position: this.camera.position.toArray(), target: this.controls.target.toArray() };
  }

  /** Puts the eye where another one is. */
  look(pose: Pose): void {
    this.camera.position.fromArray(pose.position);
    this.controls.target.fromArray(pose.target);
    this.camera.lookAt(this.controls.target);
    this.view.stale();
  }

  home(): void {
    this.camera.position.set(0, 0.3, 4.95);
    this.controls.target.set(0, -0.02, 0);
    this.controls.update();
    this.view.stale();
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
    this.view.stale();
  }

  /** Ray through a point given in CSS pixels from the view's upper left corner. */
  ray(x: number, y: number): Ray {
    this.fit();
    this.camera.updateMatrixWorld();
    this.caster.setFromCamera(new Vector2((x / this.view.width) * 2 - 1, 1 - (y / this.view.height) * 2), this.camera);
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
    this.camera.updateMatrixWorld();
    const at = new Vector3(...point).project(this.camera);
    return { x: ((at.x + 1) / 2) * this.view.width, y: ((1 - at.y) / 2) * this.view.height };
  }

  /** The projection of a stencil that lies over the view. */
  stencil(place: StencilPlace): StencilRows {
    this.fit();
    this.camera.updateMatrixWorld();
    const m = new Matrix4().multiplyMatrices(this.camera.projectionMatrix, this.camera.matrixWorldInverse).elements;
    const row = (k: number) => [m[k]!, m[k + 4]!, m[k + 8]!, m[k + 12]!] as const;
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
  }
}
