import type { DabFrame } from '#core/brush';
import type { Linear } from '#core/colour';
import { falloffTable } from '#core/falloff';
import { ball, boxCoordinates, buildMesh, faceNormal, type Mesh } from '#core/mesh';
import { newPicture, pyramid } from '#core/picture';
import { seeded } from '#core/random';
import { FalloffSchema } from '#core/settings';
import { cross, dot, minus, unit, type Vec3 } from '#core/vector';
import {
  atlas,
  bytesOf,
  eachTexel,
  FULL,
  PADDING,
  PaintStroke,
  Places,
  PLAIN_FORM,
  texelAt,
  texture,
  textureOf,
  tileAt,
  wordAt,
  type Atlas,
  type PaintForm,
  type PaintOptions,
  type Texture,
} from './index';

const CELLS = 24;
const SIZE = 1024;
const painted = (): Mesh =>
  buildMesh({ ...ball(CELLS), carried: { coordinates: boxCoordinates(CELLS, CELLS, CELLS), groups: null } });
const MESH = painted();
const ON = atlas(MESH, MESH.carried?.coordinates, SIZE);
const PLACES = new Places(ON);
const FULL_FALLOFF = falloffTable(FalloffSchema.parse({ kind: 'full' }));
const plain: PaintForm = { ...PLAIN_FORM, falloff: FULL_FALLOFF };
const RED = [1, 0, 0] as const;

/** One dab of a stroke of its own; answers the tiles that changed. */
function laid(
  on: Texture,
  frame: DabFrame,
  {
    form = plain,
    colour = RED as Linear,
    flow = 1,
    o = { overlaps: 'even', opacity: 1 } as PaintOptions,
    places = PLACES,
  } = {},
): Set<number> {
  const changed = new Set<number>();
  new PaintStroke(on, places, o).dab(frame, form, colour, flow, changed);
  return changed;
}

function frameAt(direction: Vec3, radius: number): DabFrame {
  const normal = unit(direction);
  const tangent = unit(cross(Math.abs(normal[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0], normal));
  return { origin: normal, normal, tangent, bitangent: cross(normal, tangent), radius };
}

/** Twice the area of a triangle in the texture, under 0 where it runs anticlockwise as seen. */
function twiceOf({ corners }: Atlas, t: number): number {
  const [ax, ay, bx, by, cx, cy] = [...corners.subarray(t * 6, t * 6 + 6)] as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
}

/** Every texel of the body: its cover, its area on the body, and where it lies there. */
function eachOnBody({ mesh }: Atlas, on: Texture, visit: (cover: number, area: number, place: Vec3) => void): void {
  const { positions: p, triangles } = mesh;
  for (let t = 0; t < mesh.triangleCount; t++) {
    const area = Math.hypot(...faceNormal(mesh, t)) / Math.abs(twiceOf(ON, t));
    eachTexel(ON, t, (x, y, a, b, c) => {
      const place = [0, 1, 2].map(
        (i) =>
          p[triangles[t * 3]! * 3 + i]! * a +
          p[triangles[t * 3 + 1]! * 3 + i]! * b +
          p[triangles[t * 3 + 2]! * 3 + i]! * c,
      ) as unknown as Vec3;
      const words = on.tiles.get(tileAt(on, x, y));
      visit(words ? words[wordAt(x, y) + 3]! / FULL : 0, area, place);
    });
  }
}
const sum = (on: Texture): number =>
  [...on.tiles]
    .sort((a, b) => a[0] - b[0])
    .reduce((all, [tile, words]) => {
      let out = Math.imul(all ^ tile, 16777619);
      for (const word of words) out = Math.imul(out ^ word, 16777619);
      return out;
    }, 1);

test('coordinates by construction: inside the square, no island over another, none mirrored, no texel two triangles’', () => {
  const seen = new Uint8Array(SIZE * SIZE);
  let [texels, area, mirrored, off] = [0, 0, 0, 0];
  for (let t = 0; t < MESH.triangleCount; t++) {
    const twice = twiceOf(ON, t);
    // y runs down: anticlockwise from outside is clockwise here.
    if (!(twice < 0)) mirrored++;
    area += Math.abs(twice) / 2;
    eachTexel(ON, t, (x, y, a, b, c) => {
      seen[y * SIZE + x]!++;
      texels++;
      off = Math.max(off, Math.abs(a + b + c - 1));
    });
  }
  expect([mirrored, seen.every((n) => n <= 1)]).toEqual([0, true]);
  expect(off).toBeLessThan(1e-9);
  expect(texels / area).toBeCloseTo(1, 2);
});

test('triangles of a cut square share its texels without one left out or met twice, whichever way they run', () => {
  const random = seeded(3);
  for (let n = 0; n < 60; n++) {
    // Often on the very middles of texels.
    const at = (): number => (random() < 0.5 ? Math.floor(random() * 30) + 0.5 : random() * 30);
    const [x, y] = [at() + 5, at() + 5];
    const square = [2.5, 2.5, 40.5, 2.5, 40.5, 40.5, 2.5, 40.5];
    const corners: number[] = [];
    for (let k = 0; k < 4; k++) {
      const j = (k + 1) % 4;
      const [a, b] = [square.slice(k * 2, k * 2 + 2), square.slice(j * 2, j * 2 + 2)];
      corners.push(...(n % 2 ? [...a, ...b, x, y] : [...b, ...a, x, y]));
    }
    const met = new Uint8Array(64 * 64);
    for (let t = 0; t < 4; t++)
      eachTexel({ corners: Float32Array.from(corners), size: 64 }, t, (i, j) => met[j * 64 + i]!++);
    // Half-open: two of its sides have the texels that lie on them.
    expect(met.reduce((all, m) => all + m, 0)).toBe(38 * 38);
    expect(Math.max(...met)).toBe(1);
  }
});

test.each([
  ['on a face', [0.1, 0.2, 1]],
  ['over a seam', [1, 0.05, 1]],
  ['over a corner', [1, 1, 1]],
] as const)('a stamp %s covers the ideal disc within 2 %% of its area, and nothing of the far side', (_, direction) => {
  const on = texture(SIZE);
  const radius = 0.2;
  const frame = frameAt(direction, radius);
  laid(on, frame);
  let [covered, farthest] = [0, 1];
  eachOnBody(ON, on, (cover, area, place) => {
    covered += cover * area;
    if (cover > 0) farthest = Math.min(farthest, dot(place, frame.normal));
  });
  expect(farthest).toBeGreaterThan(0.9);
  const cap = 2 * Math.PI * (1 - Math.sqrt(1 - radius * radius));
  expect(covered / cap).toBeGreaterThan(0.98);
  expect(covered / cap).toBeLessThan(1.02);
});

test('over a seam it is as it is away from one: whole inside, nothing outside, its rim half a texel wide', () => {
  for (const direction of [
    [0, 0, 1],
    [1, 0, 1],
    [1, 1, 1],
  ] as const) {
    const on = texture(SIZE);
    const frame = frameAt(direction, 0.2);
    laid(on, frame, { flow: 0.5 });
    let [inside, outside, wrong] = [0, 0, 0];
    eachOnBody(ON, on, (cover, _, place) => {
      const off = minus(place, frame.origin);
      const rho = Math.hypot(dot(off, frame.tangent), dot(off, frame.bitangent)) / frame.radius;
      const front = dot(place, frame.normal) > 0;
      if (front && rho < 0.97) {
        inside++;
        if (Math.abs(cover - 0.5) > 1 / 255) wrong++;
      } else if (!front || rho > 1.03) {
        outside++;
        if (cover !== 0) wrong++;
      }
    });
    expect(wrong).toBe(0);
    expect(inside).toBeGreaterThan(3000);
    expect(outside).toBeGreaterThan(100_000);
  }
});

test('Even never passes its flow; Add up follows 1 − (1 − f)ⁿ; opacity is over all of it', () => {
  const frame = frameAt([0, 0, 1], 0.2);
  const most = (on: Texture): number => {
    let out = 0;
    for (const words of on.tiles.values()) for (let i = 3; i < words.length; i += 4) out = Math.max(out, words[i]!);
    return out / FULL;
  };
  const after = (overlaps: 'even' | 'add', flow: number, opacity: number, n: number): number => {
    const on = texture(SIZE);
    const stroke = new PaintStroke(on, PLACES, { overlaps, opacity });
    for (let k = 0; k < n; k++) stroke.dab(frame, plain, RED, flow, new Set());
    return most(on);
  };
  expect(after('even', 0.5, 1, 12)).toBeCloseTo(0.5, 4);
  for (const n of [1, 2, 5]) expect(after('add', 0.3, 1, n)).toBeCloseTo(1 - 0.7 ** n, 4);
  expect(after('add', 0.3, 0.6, 20)).toBeLessThanOrEqual(0.6);
  expect(after('even', 1, 0.25, 3)).toBeCloseTo(0.25, 4);
});

test('red over green mixes in linear light; erased it is gone as far as the eraser went; given up it is as before', () => {
  const on = texture(SIZE);
  const frame = frameAt([0, 0, 1], 0.2);
  laid(on, frame, { colour: [0, 1, 0] });
  const green = sum(on);
  const stroke = new PaintStroke(on, PLACES, { overlaps: 'even', opacity: 0.5 });
  const changed = new Set<number>();
  stroke.dab(frame, plain, RED, 1, changed);
  expect(changed.size).toBeGreaterThan(1);
  const middle = (): readonly number[] => {
    let out: readonly number[] = [];
    for (let t = 0; t < MESH.triangleCount && out.length === 0; t++)
      eachTexel(ON, t, (x, y) => {
        const found = texelAt(on, x, y);
        if (found[3] === 1 || (found[3] > 0.49 && found[3] < 0.51)) out = found;
      });
    return out;
  };
  // Half the light of each: 0.735 as it is displayed, not 0.5.
  expect(middle()[0]).toBeCloseTo(0.7354, 3);
  expect(middle()[1]).toBeCloseTo(0.7354, 3);
  expect(stroke.end().size).toBe(changed.size);
  expect(stroke.rewind()).toEqual(changed);
  expect(sum(on)).toBe(green);
  laid(on, frame, { o: { overlaps: 'even', opacity: 0.5, erases: true } });
  expect(middle()[3]).toBeCloseTo(0.5, 3);
});

test('a picture covers by its bright or by its dark; its corners beyond the ring are left out', () => {
  const picture = newPicture(64, 64);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = i % 64 < 32 ? 1 : 0;
  const covers = (from: 'bright' | 'dark'): [number, number] => {
    const on = texture(SIZE);
    const frame = frameAt([0, 0, 1], 0.2);
    const read = { kind: 'flat', fit: 1 } as const;
    laid(on, frame, { form: { ...plain, picture: { of: pyramid(picture), from, read } } });
    let [left, right] = [0, 0];
    eachOnBody(ON, on, (cover, area, place) => {
      if (dot(place, frame.tangent) < 0) left += cover * area;
      else right += cover * area;
    });
    return [left, right];
  };
  const [bright, dark] = [covers('bright'), covers('dark')];
  expect(bright[0]).toBeGreaterThan(bright[1] * 20);
  expect(dark[1]).toBeGreaterThan(dark[0] * 20);
  expect(bright[0]! / dark[1]!).toBeCloseTo(1, 1);
});

test('beside an island the texels take after its rim, as far as the padding; painted again they follow', () => {
  const on = texture(SIZE);
  laid(on, frameAt([1, 0, 1], 0.3));
  const own = new Uint8Array(SIZE * SIZE);
  for (let t = 0; t < MESH.triangleCount; t++) eachTexel(ON, t, (x, y) => (own[y * SIZE + x] = 1));
  let [padded, lonely] = [0, 0];
  for (let y = PADDING; y < SIZE - PADDING; y++)
    for (let x = PADDING; x < SIZE - PADDING; x++) {
      if (own[y * SIZE + x] || texelAt(on, x, y)[3] === 0) continue;
      padded++;
      let near = false;
      for (let j = -PADDING; j <= PADDING; j++)
        for (let i = -PADDING; i <= PADDING; i++) near ||= own[(y + j) * SIZE + x + i] === 1;
      if (!near) lonely++;
    }
  expect(lonely).toBe(0);
  expect(padded).toBeGreaterThan(200);
  laid(on, frameAt([1, 0, 1], 0.4), { o: { overlaps: 'even', opacity: 1, erases: true } });
  let left = 0;
  for (let y = 0; y < SIZE; y++) for (let x = 0; x < SIZE; x++) if (!own[y * SIZE + x]) left += texelAt(on, x, y)[3];
  expect(left).toBe(0);
});

test('as bytes and back a texture is the same, and only what was touched is there', () => {
  const on = texture(512);
  const small = new Places(atlas(MESH, MESH.carried?.coordinates, 512));
  const random = seeded(6);
  for (let n = 0; n < 8; n++)
    laid(on, frameAt([random() - 0.5, random() - 0.5, random() - 0.5], 0.15), {
      places: small,
      colour: [random(), random(), random()],
      flow: 0.7,
    });
  expect(on.tiles.size).toBeLessThan(64);
  const bytes = bytesOf(on);
  const again = bytesOf(textureOf(512, bytes));
  // Where little covers a colour is told by few steps.
  const off = bytes.reduce((most, byte, i) => Math.max(most, Math.abs(byte - again[i]!)), 0);
  expect(off).toBeLessThanOrEqual(1);
  expect(bytes.some((byte) => byte > 0)).toBe(true);
});

test('sizes and coordinates that can’t be are refused with a sentence', () => {
  expect(() => texture(1000)).toThrow('512, 1024');
  expect(() => texture(16_384)).toThrow('16384');
  expect(() => atlas(buildMesh(ball(4)), null, 512)).toThrow('no texture coordinates');
  const outside = boxCoordinates(4, 4, 4);
  outside[0] = 1.5;
  outside[7] = -0.5;
  const mesh = buildMesh({ ...ball(4), carried: { coordinates: outside, groups: null } });
  expect(() => atlas(mesh, mesh.carried?.coordinates, 512)).toThrow('2 corners of faces have coordinates outside');
});
