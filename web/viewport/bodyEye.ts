/** The eye round a body: right drag turns, middle or Shift and right drag pans, the wheel goes nearer. */
import { MOUSE, PerspectiveCamera, Raycaster, Vector2, Vector3 } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Ray } from '#core/mesh';
import type { View } from '#core/stroke';
import type { ClayView } from './clayView';

export class BodyEye {
  readonly camera = new PerspectiveCamera(28, 1, 0.4, 24);
  private readonly controls: OrbitControls;
  private readonly caster = new Raycaster();

  constructor(private readonly view: ClayView, surface: HTMLElement) {
    view.camera = this.camera;
    this.controls = new OrbitControls(this.camera, surface);
    this.controls.mouseButtons = { LEFT: null, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.ROTATE };
    this.controls.enableDamping = false;
    this.controls.minDistance = 0.6;
    this.controls.maxDistance = 20;
    this.controls.addEventListener('change', () => view.stale());
    view.onBeforeDraw = () => this.fit();
    this.home();
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

  dispose(): void {
    this.controls.dispose();
  }

  private fit(): void {
    this.camera.aspect = this.view.width / this.view.height;
    this.camera.updateProjectionMatrix();
  }
}
