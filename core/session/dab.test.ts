import { castHeights, castTones } from '#core/cast';
import { body, buildMesh, plane, positionsIn, positionsOut } from '#core/mesh';
import { newPicture, psnr, pyramid } from '#core/picture';
import { fullHeight, shareAt } from '#core/profile';
import { FALLOFF_KINDS } from '#core/settings';
import { surface } from '#core/sculpt';
import { session, type Session } from './index';
import { heightNear, slabSession, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const press: BrushChange = {
  stroke: { type: 'press', size: 0.4 },
  touch: { falloff: { kind: 'full', hold: 0.5, nodes: [] } },
};

describe('one dab', () => {
  test('lifts the plain form by depth · relief · 2r · f · strength', () => {
    const s = slabSession();
    stroke(s, testBrush({ ...press, form: { depth: 200 }, touch: { ...press.touch, strength: 50 } }), [[0, 0]]);
    expect(heightNear(s, 0, 0)).toBeCloseTo(2 * 0.1 * 0.8 * 0.5, 6);
    expect(heightNear(s, 0.375, 0)).toBeCloseTo(0.08, 6);
    expect(heightNear(s, 0.5, 0)).toBe(0);
  });

  test('digs by as much as it lifts', () => {
    const up = slabSession();
    const dug = slabSession();
    stroke(up, testBrush(press), [[0.1, 0.2]]);
    stroke(dug, testBrush(press), [[0.1, 0.2]], { dig: true });
    const a = bytes(up);
    const b = bytes(dug);
    for (let i = 2; i < a.length; i += 3 * 17) expect(b[i]).toBe(a[i] === 0 ? 0 : -a[i]);
  });

  test.each(FALLOFF_KINDS)('falls off as %s does', (kind) => {
    const s = slabSession(plane(128, 2));
    const falloff = {
      kind,
      hold: 0.5,
      nodes: [
        { x: 0, y: 1, corner: true },
        { x: 1, y: 0, corner: true },
      ],
    };
    stroke(s, testBrush({ stroke: { type: 'press', size: 0.5 }, touch: { falloff } }), [[0, 0]]);
    const half = heightNear(s, 0.25, 0) / heightNear(s, 0, 0);
    const wanted = { full: 1, plateau: 1, dome: Math.sqrt(0.75), bell: 0.5625, cone: 0.5, needle: 0.125, own: 0.5 }[
      kind
    ];
    expect(half).toBeCloseTo(wanted, 3);
  });

  test('a square footprint fills its corners, a round one does not', () => {
    for (const [footprint, corner] of [
      ['round', 0],
      ['square', 0.08],
    ] as const) {
      const s = slabSession();
      stroke(s, testBrush({ ...press, form: { footprint } }), [[0, 0]]);
      expect(heightNear(s, 0.34, 0.34)).toBeCloseTo(corner, 6);
    }
  });

  test('leaves alone what is deeper than its reach or turned away', () => {
    const s = session(surface(buildMesh(body('ball', 24))), { replay: false });
    const before = bytes(s);
    stroke(
      s,
      testBrush({
        stroke: { type: 'press', size: 1.5 },
        touch: { reachDepth: 4, overlaps: 'add', falloff: { kind: 'full', hold: 0, nodes: [] } },
      }),
      [[0, 0]],
    );
    const p = s.surface.mesh.positions;
    let front = 0;
    let back = 0;
    for (let i = 0; i < p.length; i += 3) {
      if (p[i + 2] === before[i + 2]) continue;
      if (before[i + 2] > -0.1) front++;
      else back++;
    }
    expect(front).toBeGreaterThan(500);
    expect(back).toBe(0);
  });

  test('an alpha is stamped the right way up, turned and inside its ring', () => {
    const picture = newPicture(64);
    // White in the upper right quarter.
    for (let j = 0; j < 32; j++) for (let i = 32; i < 64; i++) picture.data[j * 64 + i] = 1;
    const form = { pyramid: pyramid(picture), relief: 0.2, vector: null };
    const s = slabSession(plane(128, 2));
    stroke(s, testBrush(press, form), [[0, 0]]);
    expect(heightNear(s, 0.2, 0.2)).toBeCloseTo(0.2 * 0.8, 6);
    expect(heightNear(s, -0.2, 0.2)).toBe(0);
    const turned = slabSession(plane(128, 2));
    stroke(turned, testBrush({ ...press, form: { turn: 90 } }, form), [[0, 0]]);
    expect(heightNear(turned, -0.2, 0.2)).toBeCloseTo(0.16, 6);
    expect(heightNear(turned, 0.2, 0.2)).toBeCloseTo(0, 6);
    const shrunk = slabSession(plane(128, 2));
    stroke(shrunk, testBrush({ ...press, form: { fit: 2 } }, form), [[0, 0]]);
    // Half as wide, so half as high: the proportion stays.
    expect(heightNear(shrunk, 0.1, 0.1)).toBeCloseTo(0.08, 6);
    expect(heightNear(shrunk, 0.25, 0.25)).toBe(0);
  });

  test('ground leaves its grey where it is and digs below it', () => {
    const picture = newPicture(16, 16, 0.5);
    picture.data.fill(0.25, 0, 128);
    const s = slabSession(plane(128, 2));
    stroke(
      s,
      testBrush({ ...press, form: { ground: 0.5 } }, { pyramid: pyramid(picture), relief: 0.2, vector: null }),
      [[0, 0]],
    );
    expect(heightNear(s, 0, -0.2)).toBeCloseTo(0, 9);
    expect(heightNear(s, 0, 0.2)).toBeCloseTo(-0.25 * 0.2 * 0.8, 6);
  });
});

test('On surface and From view agree on a plane that faces the view, and differ on a slope', () => {
  const tilted = plane(64, 2);
  for (let i = 0; i < tilted.positions.length; i += 3) tilted.positions[i + 2] = tilted.positions[i] * 0.6;
  const run = (mapping: 'surface' | 'view', raw = plane(64, 2)) => {
    const s = slabSession(raw);
    stroke(s, testBrush({ ...press, stroke: { ...press.stroke, mapping } }), [[0.2, 0.1]]);
    return bytes(s);
  };
  expect(run('view')).toEqual(run('surface'));
  const rest = buildMesh(tilted).positions;
  const slid = run('view', tilted).filter((x, i) => i % 3 === 0 && x !== rest[i]);
  expect(slid).toHaveLength(0);
  expect(run('surface', tilted)).not.toEqual(run('view', tilted));
});

test('round trip: cast a slab, stamp it once at 100 % on a flat body, cast that: over 50 dB', () => {
  const side = 1.8;
  const frame = { x: 0, y: 0, turn: 0, side };
  const slab = buildMesh(plane(512, 2));
  const positions = positionsOut(slab);
  for (let i = 0; i < positions.length; i += 3) {
    const x = positions[i];
    const y = positions[i + 1];
    positions[i + 2] = Math.max(0, 0.7 - Math.hypot(x, y)) * (0.25 + 0.08 * Math.cos(14 * x) * Math.sin(11 * y));
  }
  positionsIn(slab, positions);
  const first = castHeights(slab, { frame, size: 512, samples: 1 });
  const tones = castTones(first, side, null, null);

  const flat = slabSession(plane(512, 2));
  stroke(
    flat,
    testBrush(
      {
        stroke: { type: 'press', size: side / 2 },
        form: { footprint: 'square' },
        touch: { falloff: { kind: 'full', hold: 0, nodes: [] }, strength: 100 },
      },
      { pyramid: pyramid(tones.picture), relief: tones.relief, vector: null },
    ),
    [[0, 0]],
  );
  const second = castTones(
    castHeights(flat.surface.mesh, { frame, size: 512, samples: 1 }),
    side,
    tones.floor,
    tones.crown,
  );
  expect(psnr(tones.picture, second.picture)).toBeGreaterThan(50);
});

test.each(['surface', 'view', 'wrapped'] as const)(
  'the profile agrees with the clay that is stamped, mapping %s',
  (mapping) => {
    const picture = newPicture(128);
    for (let i = 0; i < picture.data.length; i++)
      picture.data[i] =
        Math.hypot(((i % 128) + 0.5) / 128 - 0.5, (Math.floor(i / 128) + 0.5) / 128 - 0.5) < 0.25 ? 1 : 0.2;
    const brush = testBrush(
      {
        stroke: { type: 'press', size: 0.5, mapping },
        form: { ground: 0.2, tile: 0.3 },
        touch: { falloff: { kind: 'dome', hold: 0.5, nodes: [] } },
      },
      { pyramid: pyramid(picture), relief: 0.2, vector: null },
    );
    const s = slabSession(plane(128, 2));
    stroke(s, brush, [[0, 0]]);
    if (mapping === 'wrapped') {
      // The picture's corner lies on the body's origin, so its boss stands half a tile away.
      expect(heightNear(s, 0, 0)).toBeCloseTo(0, 6);
      expect(heightNear(s, 0.15625, 0.15625)).toBeCloseTo(
        fullHeight(brush) * 0.8 * Math.sqrt(1 - 2 * (0.15625 / 0.5) ** 2),
        3,
      );
      return;
    }
    for (const x of [0, 0.1, 0.4])
      expect(heightNear(s, x, 0)).toBeCloseTo(shareAt(brush, Math.round(x * 64) / 64 / 0.5, 0) * fullHeight(brush), 3);
  },
);
