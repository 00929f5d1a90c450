/** A square relief in clay under a light that turns; drawn when something changed and only then. */
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  GLSL3,
  Mesh,
  PerspectiveCamera,
  Scene,
  ShaderMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { halve, type Picture } from '#core/picture';
import { roleColour } from '../styles/roles';

/** Finer pictures are averaged down to this many cells a side or fewer. */
const MOST_CELLS = 320;

const VERTEX = /* glsl */ `
out vec3 vNormal;
out vec3 vView;
void main() {
  vec4 at = modelViewMatrix * vec4(position, 1.0);
  vNormal = normalMatrix * normal;
  vView = at.xyz;
  gl_Position = projectionMatrix * at;
}`;

const FRAGMENT = /* glsl */ `
in vec3 vNormal;
in vec3 vView;
uniform vec3 clay;
uniform vec3 rim;
uniform vec3 light;
out vec4 colour;
void main() {
  vec3 n = normalize(vNormal);
  vec3 eye = normalize(-vView);
  float lit = max(0.0, (dot(n, light) + 0.08) / 1.08);
  float facing = max(0.0, dot(n, eye));
  vec3 sum = clay * (vec3(1.42, 1.36, 1.28) * lit + vec3(0.06, 0.07, 0.085) + vec3(0.05, 0.06, 0.075) * n.y)
    + rim * (0.07 * max(0.0, -dot(n.xy, light.xy)) + 0.22 * pow(1.0 - facing, 3.0));
  sum = sum * (1.0 + sum * 0.18) / (1.0 + sum * 0.42);
  colour = vec4(pow(clamp(sum, 0.0, 1.0), vec3(1.0 / 2.2)), 1.0);
}`;

export class ReliefScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(30, 1, 0.05, 20);
  private readonly material: ShaderMaterial;
  private body: Mesh<BufferGeometry, ShaderMaterial> | null = null;
  private cells = 0;
  private requested = 0;
  private yaw = 0;
  private pitch = 0;
  private reach = 1;
  private azimuth = 0;
  private height = 0;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.material = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      uniforms: {
        clay: { value: new Color(roleColour('--clay')) },
        rim: { value: new Color(roleColour('--rim')) },
        light: { value: new Vector3() },
      },
    });
    this.home();
  }

  home(): void {
    this.yaw = 0;
    this.pitch = 0.42;
    this.reach = 1;
    this.azimuth = 2.35;
    this.height = 0.52;
    this.request();
  }

  orbit(yaw: number, pitch: number): void {
    this.yaw -= yaw;
    this.pitch = Math.max(-0.2, Math.min(1.35, this.pitch + pitch * -1));
    this.request();
  }

  turnLight(azimuth: number, height: number): void {
    this.azimuth -= azimuth;
    this.height = Math.max(0.08, Math.min(1.5, this.height - height));
    this.request();
  }

  zoom(factor: number): void {
    this.reach = Math.max(0.25, Math.min(2.5, this.reach / factor));
    this.request();
  }

  resize(width: number, height: number): void {
    if (width < 1 || height < 1) return;
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.request();
  }

  /** Heights 0–1, first row at the top; the square is one wide and `relief` deep, its ground at nought. */
  show(heights: Float32Array, size: number, relief: number, ground: number): void {
    let picture: Picture = { width: size, height: size, data: heights };
    while (picture.width > MOST_CELLS) picture = halve(picture);
    const n = picture.width;
    const geometry = n === this.cells && this.body ? this.body.geometry : this.grid(n);
    const places = geometry.getAttribute('position') as BufferAttribute;
    const normals = geometry.getAttribute('normal') as BufferAttribute;
    const at = (i: number, j: number): number =>
      picture.data[Math.max(0, Math.min(n - 1, j)) * n + Math.max(0, Math.min(n - 1, i))];
    for (let j = 0; j < n; j++) {
      for (let i = 0; i < n; i++) {
        const k = j * n + i;
        places.setXYZ(k, (i + 0.5) / n - 0.5, 0.5 - (j + 0.5) / n, (at(i, j) - ground) * relief);
        const dx = ((at(i + 1, j) - at(i - 1, j)) * relief * n) / 2;
        const dy = ((at(i, j - 1) - at(i, j + 1)) * relief * n) / 2;
        const length = Math.hypot(dx, dy, 1);
        normals.setXYZ(k, -dx / length, -dy / length, 1 / length);
      }
    }
    places.needsUpdate = true;
    normals.needsUpdate = true;
    this.request();
  }

  dispose(): void {
    cancelAnimationFrame(this.requested);
    this.body?.geometry.dispose();
    this.material.dispose();
    this.renderer.dispose();
  }

  private grid(n: number): BufferGeometry {
    if (this.body) {
      this.scene.remove(this.body);
      this.body.geometry.dispose();
    }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(n * n * 3), 3));
    geometry.setAttribute('normal', new BufferAttribute(new Float32Array(n * n * 3), 3));
    const index = new Uint32Array((n - 1) * (n - 1) * 6);
    for (let j = 0, k = 0; j < n - 1; j++) {
      for (let i = 0; i < n - 1; i++) {
        const a = j * n + i;
        index.set([a, a + n, a + 1, a + 1, a + n, a + n + 1], k);
        k += 6;
      }
    }
    geometry.setIndex(new BufferAttribute(index, 1));
    this.body = new Mesh(geometry, this.material);
    this.body.frustumCulled = false;
    this.scene.add(this.body);
    this.cells = n;
    return geometry;
  }

  private request(): void {
    if (this.requested) return;
    this.requested = requestAnimationFrame(() => {
      this.requested = 0;
      const far = (1.32 / Math.min(1, this.camera.aspect)) * 1.5 * this.reach;
      this.camera.up.set(0, 1, 0);
      this.camera.position.set(
        Math.sin(this.yaw) * Math.cos(this.pitch) * far,
        -Math.sin(this.pitch) * far,
        Math.cos(this.yaw) * Math.cos(this.pitch) * far,
      );
      this.camera.lookAt(0, 0, 0);
      this.camera.updateMatrixWorld();
      const light = new Vector3(
        Math.cos(this.azimuth) * Math.cos(this.height),
        Math.sin(this.azimuth) * Math.cos(this.height),
        Math.sin(this.height),
      );
      // Given in the picture's own space; shading is done in the eye's.
      (this.material.uniforms['light'].value as Vector3).copy(light).transformDirection(this.camera.matrixWorldInverse);
      this.renderer.render(this.scene, this.camera);
    });
  }
}
