import { resolveBrush } from '#core/brush';
import { body, buildMesh, plane, positionsIn, positionsOut, type RawMesh } from '#core/mesh';
import { newPicture, pyramid } from '#core/picture';
import { layeredNoise, seeded } from '#core/random';
import { CLAY_ACTIONS, DIRECTIONS, MAPPINGS, newBrush } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session, undo, type Session } from '#core/session';
import { NO_SYMMETRY, stencilRows } from '#core/stroke';
import { drainChanged, surface } from './index';

const picture = newPicture(37, 53);
for (let i = 0; i < picture.data.length; i++) picture.data[i] = 0.5 + 0.5 * Math.sin(i / 7);
const form = { pyramid: pyramid(picture), relief: 0.3, vector: null };

/** An eye with a little perspective over the slab. */
const stencil = stencilRows({ x: [1, 0, 0, 0], y: [0, 1, 0, 0], w: [0.05, 0, -0.2, 1] }, 1.2, {
  x: 0.1,
  y: 0.05,
  half: 0.6,
  turnRad: 0.5,
});

function rough(raw: RawMesh): Session[] {
  return [false, true].map((plain) => {
    const mesh = buildMesh(raw);
    const places = positionsOut(mesh);
    for (let i = 0; i < places.length; i += 3)
      places[i + 2] += 0.02 * layeredNoise(places[i] * 9, places[i + 1] * 9, 3, 3);
    positionsIn(mesh, places);
    for (let v = 0; v < mesh.vertexCount; v++) mesh.mask[v] = Math.max(0, Math.sin(mesh.positions[v * 3] * 5));
    return session(surface(mesh, { plain }), { replay: false });
  });
}

describe.each([
  ['a plane', plane(48, 2)],
  ['a bollard', body('bollard', 12)],
] as const)('on %s', (_, raw) => {
  test.each(CLAY_ACTIONS)('compiled and plain %s give the same bytes', (action) => {
    const sessions = rough(raw);
    const random = seeded(CLAY_ACTIONS.indexOf(action) + 1);
    for (let i = 0; i < 8; i++) {
      const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Twin');
      Object.assign(brush.touch, {
        action,
        overlaps: i % 2 === 0 ? 'even' : 'add',
        strength: 20 + random() * 80,
        footing: random() * 100,
        pinch: 40,
      });
      Object.assign(brush.stroke, { size: 0.1 + random() * 0.5, spacing: 40, type: i % 3 === 0 ? 'press' : 'trail' });
      Object.assign(brush.form, {
        footprint: i % 4 < 2 ? 'round' : 'square',
        ground: random() * 0.5,
        turn: random() * 90,
        fit: 0.8 + random(),
      });
      brush.touch.falloff.kind = (['full', 'dome', 'bell', 'own'] as const)[i % 4];
      const ray = () => ({
        origin: [random() * 1.4 - 0.7, random() * 1.4 - 0.7, 3] as const,
        direction: [0, 0, -1] as const,
      });
      const samples = [ray(), ray(), ray()];
      const dig = random() < 0.5;
      for (const s of sessions) {
        beginStroke(s, {
          brush: resolveBrush(brush, i < 4 ? form : null),
          seed: i,
          dig,
          symmetry: { ...NO_SYMMETRY, copies: 3 },
          view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
        });
        extendStroke(s, samples);
        endStroke(s);
      }
      if (i === 5) sessions.forEach(undo);
      const [a, b] = sessions.map((s) => s.surface) as [Session['surface'], Session['surface']];
      for (const key of ['positions', 'normals', 'mask', 'boxes'] as const)
        expect(same(a.mesh[key], b.mesh[key])).toBe(true);
      expect(drainChanged(a)).toEqual(drainChanged(b));
    }
    const p = sessions[0].surface.mesh;
    expect(p.positions.some(Number.isNaN) || p.mask.some(Number.isNaN)).toBe(false);
    expect(sessions[0].done.length).toBeGreaterThan(3);
  });
});

describe('pictures and directions', () => {
  test.each(MAPPINGS.flatMap((mapping) => DIRECTIONS.map((direction) => [mapping, direction] as const)))(
    'compiled and plain give the same bytes, %s along %s',
    (mapping, direction) => {
      const sessions = rough(body('bollard', 10));
      const random = seeded(MAPPINGS.indexOf(mapping) * 10 + DIRECTIONS.indexOf(direction));
      for (let i = 0; i < 4; i++) {
        const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Twin');
        Object.assign(brush.touch, { direction, overlaps: i % 2 === 0 ? 'even' : 'add' });
        Object.assign(brush.stroke, { size: 0.3 + random() * 0.4, spacing: 40, mapping });
        Object.assign(brush.form, { ground: random() * 0.5, turn: random() * 90, tile: 0.1 + random() });
        Object.assign(brush.drift, { size: 40, squash: 60, flip: 50, turn: 90 });
        Object.assign(brush.tooth, {
          holds: i < 2 ? 'surface' : 'dab',
          scale: i % 2 ? 'fixed' : 'follows',
          turn: 30,
          invert: i === 3,
        });
        const ray = () => ({
          origin: [random() * 1.4 - 0.7, random() * 1.4 - 0.7, 3] as const,
          direction: [0, 0, -1] as const,
        });
        const samples = [ray(), ray()];
        for (const s of sessions) {
          beginStroke(s, {
            brush: resolveBrush(brush, form, form),
            seed: i,
            dig: false,
            symmetry: { ...NO_SYMMETRY, mirrorX: true },
            view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
            stencil,
          });
          extendStroke(s, samples);
          endStroke(s);
        }
        const [a, b] = sessions.map((s) => s.surface) as [Session['surface'], Session['surface']];
        for (const key of ['positions', 'normals', 'mask', 'boxes'] as const)
          expect(same(a.mesh[key], b.mesh[key])).toBe(true);
      }
      expect(sessions[0].done.length).toBeGreaterThan(1);
    },
  );
});

test('a falloff that was lent longest ago is still there while a new picture is lent for the same dab', () => {
  const sessions = rough(plane(48, 2));
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Twin');
  Object.assign(brush.stroke, { size: 0.4, type: 'press' });
  // The same table of the falloff for all of them, as one brush has it whose picture changes.
  const { falloff } = resolveBrush(brush, null);
  for (let n = 0; n < 60; n++) {
    const own = newPicture(24, 24);
    for (let i = 0; i < own.data.length; i++) own.data[i] = 0.5 + 0.5 * Math.sin(i / (3 + n));
    const resolved = { ...resolveBrush(brush, { pyramid: pyramid(own), relief: 0.3, vector: null }), falloff };
    for (const s of sessions) {
      beginStroke(s, {
        brush: resolved,
        seed: n,
        dig: n % 2 === 1,
        symmetry: NO_SYMMETRY,
        view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
      });
      extendStroke(s, [{ origin: [0.1, 0.1, 3], direction: [0, 0, -1] }]);
      endStroke(s);
    }
    const [a, b] = sessions.map((s) => s.surface.mesh) as [Session['surface']['mesh'], Session['surface']['mesh']];
    expect(same(a.positions, b.positions)).toBe(true);
  }
});

/** Bit by bit, so that 0 and −0 differ. */
function same(a: Float32Array, b: Float32Array): boolean {
  const x = new Uint32Array(a.slice().buffer);
  const y = new Uint32Array(b.slice().buffer);
  return x.length === y.length && x.every((word, i) => word === y[i]);
}
