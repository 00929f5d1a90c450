/**
 * Draws one body in clay, when something changed and only then.
 *
 * The mesh is drawn into a picture with depth; a second, mesh-free pass darkens its hollows, and a third puts it on the
 * screen and lays the cursor on the surface. Buffers are views of the sculpting worker's memory; only changed runs of
 * leaves go up.
 */
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DataTexture,
  DepthTexture,
  GLSL3,
  LinearFilter,
  LineSegments,
  Matrix4,
  Mesh as ThreeMesh,
  OrthographicCamera,
  PlaneGeometry,
  RedFormat,
  Scene,
  ShaderMaterial,
  UnsignedIntType,
  Vector2,
  Vector3,
  WebGLRenderer,
  WebGLRenderTarget,
  type Camera,
} from 'three';
import type { DabFrame } from '#core/brush';
import { LEAF, type MeshArrays } from '#core/mesh';
import { onTheme, roleColour } from '../styles/roles';
import { AXES, type Symmetry } from '#core/settings';
import { shownColour } from './shownColour';
import { atSeams, PaintTexture, SeamFaces } from './paintedBody';
import { PieceView } from './pieceView';
import type { GuideLook } from './settling';
import {
  CLAY_FRAGMENT,
  CLAY_VERTEX,
  EDGE_FRAGMENT,
  EDGE_VERTEX,
  OVERLAY_FRAGMENT,
  OVERLAY_VERTEX,
  SHADE_FRAGMENT,
} from './shaders';

export interface CursorLook {
  frame: DabFrame;
  square: boolean;
  reach: number;
  fit: number;
  ground: number;
  dig: boolean;
}

/** Right, up and towards the eye. */
const UPPER_LEFT = [-0.64, 0.66, 0.54] as const;
/** A slab is lit lower, so that shallow relief shows. */
const GRAZING_LIGHT = [-0.66, 0.66, 0.42] as const;

export class ClayView {
  readonly renderer: WebGLRenderer;
  /** The machine draws without a graphics card. */
  readonly software: boolean;
  /** Set by whoever moves the eye. */
  camera: Camera = new OrthographicCamera();
  /** Called before each drawing, with the size in CSS pixels. */
  onBeforeDraw: () => void = () => undefined;
  /** Called after each drawing of the body, for what is laid over it. */
  onDrawn: () => void = () => undefined;
  drawings = 0;

  private readonly stopTheme: () => void;
  private readonly scene = new Scene();
  private readonly shadeScene = new Scene();
  private readonly overlayScene = new Scene();
  private readonly overlayCamera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly target: WebGLRenderTarget;
  private readonly shaded = new WebGLRenderTarget(1, 1, { depthBuffer: false });
  private readonly clay: ShaderMaterial;
  private readonly shade: ShaderMaterial;
  private readonly overlay: ShaderMaterial;
  private body: ThreeMesh<BufferGeometry, ShaderMaterial> | null = null;
  /** Seen in place of the body from the left up to `split`. */
  private before: ThreeMesh<BufferGeometry, ShaderMaterial> | null = null;
  private split = 0;
  readonly pieces: PieceView;
  /** What is painted on the body; null where nothing is, or it has no coordinates. */
  private paint: { texture: PaintTexture; material: ShaderMaterial; seams: SeamFaces | null } | null = null;
  private shown: MeshArrays | null = null;
  private edges: LineSegments<BufferGeometry, ShaderMaterial> | null = null;
  private form: DataTexture | null = null;
  /** Drawn over everything, by whoever has handles to show. */
  handles: { scene: Scene; follow: () => void } | null = null;
  private sceneStale = true;
  private requested = 0;
  private disposed = false;
  width = 1;
  height = 1;

  constructor(canvas: HTMLCanvasElement, look: { grazing: boolean }) {
    this.renderer = new WebGLRenderer({ canvas, antialias: false, alpha: false, powerPreference: 'high-performance' });
    const gl = this.renderer.getContext();
    const info = gl.getExtension('WEBGL_debug_renderer_info');
    const name = info ? String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)) : '';
    this.software = /swiftshader|llvmpipe|software|basic render/i.test(name);
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, this.software ? 1 : 2));
    this.renderer.autoClear = false;
    this.target = new WebGLRenderTarget(1, 1, {
      depthTexture: new DepthTexture(1, 1, UnsignedIntType),
      samples: this.software ? 0 : 4,
    });
    this.clay = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: CLAY_VERTEX,
      fragmentShader: CLAY_FRAGMENT,
      side: 2,
      uniforms: {
        clay: { value: new Color(roleColour('--clay')) },
        rim: { value: new Color(roleColour('--rim')) },
        grazing: { value: look.grazing ? 1 : 0 },
        light: { value: new Vector3(...(look.grazing ? GRAZING_LIGHT : UPPER_LEFT)) },
        facets: { value: 0 },
        gloss: { value: 0 },
        parallel: { value: 0 },
      },
    });
    this.pieces = new PieceView(this.scene, this.clay, () => this.stale());
    const toBody = { value: new Matrix4() };
    this.shade = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: OVERLAY_VERTEX,
      fragmentShader: SHADE_FRAGMENT,
      depthTest: false,
      depthWrite: false,
      uniforms: {
        drawn: { value: this.target.texture },
        depth: { value: this.target.depthTexture },
        toBody,
        pixel: { value: new Vector2() },
        toward: { value: new Vector3() },
        viewTop: { value: shownColour('--view-top') },
        viewBottom: { value: shownColour('--view-bottom') },
        mirrors: { value: new Vector3() },
        about: { value: new Vector3() },
        copies: { value: 1 },
        axis: { value: 0 },
        lineColour: { value: shownColour('--act') },
        guideColour: { value: shownColour('--guide') },
        centreLines: { value: 0 },
        grid: { value: 0 },
        gridStep: { value: 1 },
      },
    });
    this.overlay = new ShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: OVERLAY_VERTEX,
      fragmentShader: OVERLAY_FRAGMENT,
      depthTest: false,
      depthWrite: false,
      uniforms: {
        shaded: { value: this.shaded.texture },
        depth: { value: this.target.depthTexture },
        toBody,
        cursorOn: { value: 0 },
        centre: { value: new Vector3() },
        tangent: { value: new Vector3() },
        bitangent: { value: new Vector3() },
        normal: { value: new Vector3() },
        radius: { value: 1 },
        reach: { value: 1 },
        square: { value: 0 },
        fit: { value: 1 },
        hasForm: { value: 0 },
        form: { value: null },
        ground: { value: 0 },
        dig: { value: 0 },
      },
    });
    this.stopTheme = onTheme(() => {
      const { viewTop, viewBottom, lineColour, guideColour } = this.shade.uniforms;
      viewTop.value = shownColour('--view-top');
      viewBottom.value = shownColour('--view-bottom');
      lineColour.value = shownColour('--act');
      guideColour.value = shownColour('--guide');
      this.stale();
    });
    for (const [scene, material] of [
      [this.shadeScene, this.shade],
      [this.overlayScene, this.overlay],
    ] as const) {
      const sheet = new ThreeMesh(new PlaneGeometry(2, 2), material);
      sheet.frustumCulled = false;
      scene.add(sheet);
    }
  }

  /** Shows another body. */
  show(mesh: MeshArrays): void {
    this.drop(this.body);
    this.dropSeams();
    this.shown = mesh;
    this.body = this.inClay(mesh);
    this.stale();
  }

  /**
   * A texture of so many texels a side lies on the body that is shown; 0 takes it off, as do no coordinates. What is
   * painted on it is to be put.
   */
  showPaint(size: number, coordinates: Float32Array | null): void {
    const { body, shown } = this;
    if (!body || !shown) return;
    this.dropSeams();
    if (this.paint && this.paint.texture.size !== size) {
      this.paint.texture.dispose();
      this.paint.material.dispose();
      this.paint = null;
    }
    const fits = size > 0 && coordinates?.length === shown.triangleCount * 6;
    body.geometry.setIndex(new BufferAttribute(shown.triangles, 1));
    body.material = this.clay;
    if (fits) {
      this.paint ??= this.newPaint(size);
      const seams = atSeams(shown, coordinates);
      body.geometry.setAttribute('uv', new BufferAttribute(seams.coordinates, 2));
      body.geometry.setIndex(new BufferAttribute(seams.inner, 1));
      body.material = this.paint.material;
      this.paint.seams = new SeamFaces(shown, seams, this.paint.material);
      this.scene.add(this.paint.seams.mesh);
    }
    this.stale();
  }

  /** Tiles of the texture that look different now, and their bytes one behind the other. */
  putPaint(tiles: Uint32Array, runs: Uint32Array, bytes: Uint8Array): void {
    this.paint?.texture.put(tiles, runs, bytes);
    this.stale();
  }

  private newPaint(size: number): NonNullable<ClayView['paint']> {
    const texture = new PaintTexture(this.renderer, size, () => this.stale());
    const material = this.clay.clone();
    material.defines = { PAINTED: '' };
    // What is set on the clay is set on painted clay too.
    material.uniforms = { ...this.clay.uniforms, paint: { value: texture.texture } };
    return { texture, material, seams: null };
  }

  private dropSeams(): void {
    if (!this.paint?.seams) return;
    this.scene.remove(this.paint.seams.mesh);
    this.paint.seams.mesh.geometry.dispose();
    this.paint.seams = null;
  }

  /** From the left up to this share of the view another body is seen in its place; null shows none. */
  showBefore(mesh: MeshArrays | null, share: number): void {
    if (mesh?.positions !== this.before?.geometry.getAttribute('position').array) {
      this.drop(this.before);
      this.before = mesh && this.inClay(mesh);
    }
    this.split = share;
    this.stale();
  }

  /** Edges that are drawn on the body: their ends, x, y, z each. */
  showEdges(ends: Float32Array): void {
    this.drop(this.edges);
    this.edges = null;
    if (ends.length > 0) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(ends, 3));
      const material = new ShaderMaterial({
        glslVersion: GLSL3,
        vertexShader: EDGE_VERTEX,
        fragmentShader: EDGE_FRAGMENT,
        transparent: true,
      });
      this.edges = new LineSegments(geometry, material);
      this.edges.frustumCulled = false;
      this.scene.add(this.edges);
    }
    this.stale();
  }

  private inClay(mesh: MeshArrays): ThreeMesh<BufferGeometry, ShaderMaterial> {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
    geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
    geometry.setAttribute('mask', new BufferAttribute(mesh.mask, 1));
    geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
    const body = new ThreeMesh(geometry, this.clay);
    body.frustumCulled = false;
    this.scene.add(body);
    return body;
  }

  private drop(
    object: ThreeMesh<BufferGeometry, ShaderMaterial> | LineSegments<BufferGeometry, ShaderMaterial> | null,
  ): void {
    if (!object) return;
    this.scene.remove(object);
    object.geometry.dispose();
    if (object.material !== this.clay && object.material !== this.paint?.material) object.material.dispose();
  }

  /** Sends the leaves that changed to the card, neighbouring leaves in one go. */
  update(leaves: Uint32Array): void {
    if (!this.body) return;
    for (const key of ['position', 'normal', 'mask'] as const) {
      const attribute = this.body.geometry.getAttribute(key) as BufferAttribute;
      for (let i = 0; i < leaves.length;) {
        let end = i + 1;
        while (end < leaves.length && leaves[end] === leaves[end - 1] + 1) end++;
        const words = LEAF * attribute.itemSize;
        const first = leaves[i] * words;
        attribute.addUpdateRange(first, Math.min((leaves[end - 1] + 1) * words, attribute.array.length) - first);
        i = end;
      }
      attribute.needsUpdate = true;
    }
    this.paint?.seams?.follow();
    this.stale();
  }

  /** The picture that lies in the cursor's ring; null for a plain form. `greys` row by row from the top. */
  setForm(greys: Uint8Array<ArrayBuffer> | null, size: number): void {
    this.form?.dispose();
    this.form = null;
    if (greys) {
      // Textures begin at the bottom row.
      const rows = new Uint8Array(greys.length);
      for (let j = 0; j < size; j++) rows.set(greys.subarray((size - 1 - j) * size, (size - j) * size), j * size);
      this.form = new DataTexture(rows, size, size, RedFormat);
      this.form.magFilter = LinearFilter;
      this.form.minFilter = LinearFilter;
      this.form.unpackAlignment = 1;
      this.form.needsUpdate = true;
    }
    this.overlay.uniforms['form'].value = this.form;
    this.overlay.uniforms['hasForm'].value = this.form ? 1 : 0;
    this.request();
  }

  /** How the clay looks: its colour, its shine, and whether faces are shaded each by itself. */
  setLook(look: { clay: string; gloss: number; facets: boolean }): void {
    (this.clay.uniforms['clay'].value as Color).set(look.clay);
    this.clay.uniforms['gloss'].value = look.gloss;
    this.clay.uniforms['facets'].value = look.facets ? 1 : 0;
    this.stale();
  }

  /** Where the light comes from, as the eye sees it; null is from the upper left. */
  setLight(from: readonly [number, number, number] | null): void {
    (this.clay.uniforms['light'].value as Vector3).set(...(from ?? UPPER_LEFT));
    this.stale();
  }

  /** Where the mirrors and the sectors of radial copies lie is drawn on the clay. */
  setSymmetry({ mirrorX, mirrorY, mirrorZ, copies, axis, x, y, z }: Symmetry): void {
    const u = this.shade.uniforms;
    (u['mirrors'].value as Vector3).set(Number(mirrorX), Number(mirrorY), Number(mirrorZ));
    (u['about'].value as Vector3).set(x, y, z);
    u['copies'].value = copies;
    u['axis'].value = AXES.indexOf(axis);
    this.stale();
  }

  /** Centre lines and a grid are drawn on the clay. */
  setGuides({ centre, grid, step }: GuideLook): void {
    const u = this.shade.uniforms;
    u['centreLines'].value = centre ? 1 : 0;
    u['grid'].value = grid ? 1 : 0;
    u['gridStep'].value = step;
    this.stale();
  }

  /** Whether all of the body is looked at along one direction. */
  setParallel(parallel: boolean): void {
    this.clay.uniforms['parallel'].value = parallel ? 1 : 0;
  }

  setCursor(look: CursorLook | null): void {
    const u = this.overlay.uniforms;
    u['cursorOn'].value = look ? 1 : 0;
    if (look) {
      const { frame } = look;
      (u['centre'].value as Vector3).set(...frame.origin);
      (u['tangent'].value as Vector3).set(...frame.tangent);
      (u['bitangent'].value as Vector3).set(...frame.bitangent);
      (u['normal'].value as Vector3).set(...frame.normal);
      u['radius'].value = frame.radius;
      u['reach'].value = look.reach;
      u['square'].value = look.square ? 1 : 0;
      u['fit'].value = look.fit;
      u['ground'].value = look.ground;
      u['dig'].value = look.dig ? 1 : 0;
    }
    this.request();
  }

  resize(width: number, height: number): void {
    if (width < 1 || height < 1) return;
    this.width = width;
    this.height = height;
    this.renderer.setSize(width, height, false);
    const ratio = this.renderer.getPixelRatio();
    this.target.setSize(Math.round(width * ratio), Math.round(height * ratio));
    this.shaded.setSize(this.target.width, this.target.height);
    this.stale();
  }

  /**
   * The body as it is seen, without cursor and lines, at any size; without the ground behind it what it leaves free is
   * clear. RGBA bytes.
   */
  picture(width: number, height: number, ground: boolean): ImageData {
    const { renderer, target, shaded } = this;
    const u = this.shade.uniforms;
    const lines = (['centreLines', 'grid', 'copies'] as const).map((name) => [name, u[name].value as number] as const);
    const mirrors = (u['mirrors'].value as Vector3).clone();
    const snapshot = { width: this.width, height: this.height, split: this.split };
    const read = (of: WebGLRenderTarget): Uint8Array => {
      const bytes = new Uint8Array(width * height * 4);
      renderer.readRenderTargetPixels(of, 0, 0, width, height, bytes);
      return bytes;
    };
    try {
      for (const [name] of lines) u[name].value = 0;
      (u['mirrors'].value as Vector3).set(0, 0, 0);
      if (this.edges) this.edges.visible = false;
      Object.assign(this, { width, height, split: 0 });
      target.setSize(width, height);
      shaded.setSize(width, height);
      this.drawShaded();
      return upright(read(shaded), ground ? null : read(target), width, height);
    } finally {
      for (const [name, value] of lines) u[name].value = value;
      (u['mirrors'].value as Vector3).copy(mirrors);
      if (this.edges) this.edges.visible = true;
      this.split = snapshot.split;
      this.resize(snapshot.width, snapshot.height);
    }
  }

  /** The longest side that a picture of it may have. */
  get mostPixels(): number {
    return Math.min(8192, this.renderer.capabilities.maxTextureSize);
  }

  /** The body or the eye moved: draw it again. */
  stale(): void {
    this.sceneStale = true;
    this.request();
  }

  dispose(): void {
    this.stopTheme();
    this.disposed = true;
    cancelAnimationFrame(this.requested);
    for (const object of [this.body, this.before, this.edges]) this.drop(object);
    this.dropSeams();
    this.paint?.texture.dispose();
    this.paint?.material.dispose();
    this.pieces.dispose();
    this.form?.dispose();
    this.target.dispose();
    this.shaded.dispose();
    this.clay.dispose();
    this.shade.dispose();
    this.overlay.dispose();
    this.renderer.dispose();
  }

  private request(): void {
    if (this.requested || this.disposed) return;
    this.requested = requestAnimationFrame(() => {
      this.requested = 0;
      this.draw();
    });
  }

  /** The body, and what is seen in its place on the left. */
  private drawBodies(): void {
    const { renderer, target, before } = this;
    if (!before || this.split <= 0) {
      if (before) before.visible = false;
      renderer.render(this.scene, this.camera);
      return;
    }
    const at = Math.round(target.width * this.split);
    const side = (left: number, width: number, isBefore: boolean): void => {
      for (const object of [this.body, this.paint?.seams?.mesh, this.edges]) if (object) object.visible = !isBefore;
      before.visible = isBefore;
      target.scissor.set(left, 0, width, target.height);
      renderer.setRenderTarget(target);
      renderer.render(this.scene, this.camera);
    };
    target.scissorTest = true;
    side(0, at, true);
    side(at, target.width - at, false);
    target.scissorTest = false;
    target.scissor.set(0, 0, target.width, target.height);
    for (const object of [this.body, this.paint?.seams?.mesh, this.edges]) if (object) object.visible = true;
  }

  private drawShaded(): void {
    const { renderer } = this;
    this.onBeforeDraw();
    this.camera.updateMatrixWorld();
    renderer.setRenderTarget(this.target);
    renderer.setClearColor(0x000000, 0);
    renderer.clear();
    this.drawBodies();
    const u = this.shade.uniforms;
    (u['toBody'].value as Matrix4).multiplyMatrices(this.camera.matrixWorld, this.camera.projectionMatrixInverse);
    (u['pixel'].value as Vector2).set(1 / this.target.width, 1 / this.target.height);
    (u['toward'].value as Vector3).setFromMatrixColumn(this.camera.matrixWorld, 2);
    renderer.setRenderTarget(this.shaded);
    renderer.render(this.shadeScene, this.overlayCamera);
    renderer.setRenderTarget(null);
  }

  private draw(): void {
    const { renderer } = this;
    if (this.sceneStale) {
      this.sceneStale = false;
      this.drawShaded();
      this.drawings++;
      this.onDrawn();
    }
    renderer.render(this.overlayScene, this.overlayCamera);
    if (!this.handles) return;
    this.handles.follow();
    renderer.render(this.handles.scene, this.camera);
  }
}

/** The card's first row is the lowest. Its cover, where it is given, is how much of a pixel the body takes. */
function upright(bytes: Uint8Array, cover: Uint8Array | null, width: number, height: number): ImageData {
  const out = new ImageData(width, height);
  const row = width * 4;
  for (let j = 0; j < height; j++) {
    const from = (height - 1 - j) * row;
    out.data.set(bytes.subarray(from, from + row), j * row);
    if (cover) for (let i = 3; i < row; i += 4) out.data[j * row + i] = cover[from + i];
  }
  return out;
}
