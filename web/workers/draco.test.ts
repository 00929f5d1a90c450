import { createDecoderModule, createEncoderModule } from 'draco3d';
import { BufferGeometry } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { dracoGlb } from './dracoKit';
import { DracoMeshes } from './draco';

const draco = new DracoMeshes(() => createDecoderModule());

/** A bowl of 21 × 21 vertices. */
const SIDE = 21;
const positions = new Float32Array(SIDE * SIDE * 3);
const triangles: number[] = [];
for (let v = 0, at = 0; v < SIDE; v++) {
  for (let u = 0; u < SIDE; u++, at += 3) {
    const [x, y] = [u / 10 - 1, v / 10 - 1];
    positions.set([x, y, 0.3 * (x * x + y * y)], at);
    const a = v * SIDE + u;
    if (u + 1 < SIDE && v + 1 < SIDE) triangles.push(a, a + 1, a + SIDE, a + 1, a + SIDE + 1, a + SIDE);
  }
}
let packed: { glb: ArrayBuffer; draco: Int8Array };

beforeAll(async () => {
  packed = dracoGlb(await createEncoderModule(), positions, new Uint32Array(triangles), 16);
});

/** The geometry, or the error's sentence. */
function decoded(bytes: ArrayBuffer, position?: number): Promise<BufferGeometry | Error> {
  return new Promise((resolve) => {
    void draco.decodeDracoFile(bytes, resolve, position === undefined ? {} : { position }, {}, '', (error) =>
      resolve(error as Error),
    );
  });
}

test('a GLB packed with Draco gives its triangles back, each vertex within the packing’s step', async () => {
  const { scene } = await new GLTFLoader().setDRACOLoader(draco.asLoader).parseAsync(packed.glb, '');
  const geometries: BufferGeometry[] = [];
  scene.traverse((object) => 'geometry' in object && geometries.push(object.geometry as BufferGeometry));
  expect(geometries).toHaveLength(1);
  const at = geometries[0].getAttribute('position');
  expect(at.count).toBe(SIDE * SIDE);
  expect(geometries[0].index!.count).toBe(triangles.length);
  const step = 2 / 2 ** 16;
  for (let i = 0; i < at.count; i++) {
    const [u, v] = [Math.round((at.getX(i) + 1) * 10), Math.round((at.getY(i) + 1) * 10)];
    const from = (v * SIDE + u) * 3;
    for (const [k, value] of [at.getX(i), at.getY(i), at.getZ(i)].entries())
      expect(Math.abs(value - positions[from + k])).toBeLessThanOrEqual(step);
  }
});

test('what is no packed mesh, is cut short or has no positions fails with an error', async () => {
  const whole = packed.draco.slice().buffer;
  expect(await decoded(whole)).toBeInstanceOf(Error);
  expect(await decoded(new ArrayBuffer(0), 0)).toBeInstanceOf(Error);
  expect(await decoded(new TextEncoder().encode('DRACO and no more than that').buffer, 0)).toBeInstanceOf(Error);
  for (const part of [0.1, 0.5, 0.9])
    expect(await decoded(whole.slice(0, Math.floor(whole.byteLength * part)), 0)).toBeInstanceOf(Error);
  expect(await decoded(whole, 0)).toBeInstanceOf(BufferGeometry);
});

test('any byte changed gives a geometry or an error, and the decoder reads the next mesh', async () => {
  for (let i = 0; i < 200; i++) {
    const bytes = packed.draco.slice();
    bytes[(i * 7919) % bytes.length] = (bytes[(i * 7919) % bytes.length] + 1 + (i % 250)) & 0xff;
    const answer = await decoded(bytes.buffer, 0);
    expect(answer instanceof BufferGeometry || answer instanceof Error).toBe(true);
  }
  expect(await decoded(packed.draco.slice().buffer, 0)).toBeInstanceOf(BufferGeometry);
});
