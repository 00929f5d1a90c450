import { resolveBrush } from '#core/brush';
import { buildMesh, plane } from '#core/mesh';
import { beginStroke, endStroke, extendStroke, session, undo } from '#core/session';
import { CLAY_ACTIONS, BrushSchema, type Brush } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { BASE_BRUSHES, SLAB_BRUSHES, STAMP_BASE } from './index';

const all = [...SLAB_BRUSHES, ...BASE_BRUSHES];

/** A strewn slab, stroked from left to right; heights and masks before and after. */
function stroked(brush: Brush) {
  const raw = plane(64, 2);
  for (let i = 0; i < raw.positions.length; i += 3)
    raw.positions[i + 2] = 0.02 * Math.sin(raw.positions[i] * 23) * Math.cos(raw.positions[i + 1] * 19);
  const s = session(surface(buildMesh(raw)), { replay: false });
  const { mesh } = s.surface;
  const before = { positions: mesh.positions.slice(), mask: mesh.mask.slice() };
  beginStroke(s, {
    brush: resolveBrush(brush, null),
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(
    s,
    [-0.3, -0.1, 0.1, 0.3].map((x) => ({ origin: [x, 0, 3], direction: [0, 0, -1] })),
  );
  const { touched } = endStroke(s);
  return { s, before, touched, after: { positions: mesh.positions.slice(), mask: mesh.mask.slice() } };
}

test('every preset is a whole brush; no two share an id, and no two of a list a name', () => {
  for (const brush of all) expect(BrushSchema.parse(brush)).toEqual(brush);
  expect(new Set(all.map((b) => b.id)).size).toBe(all.length);
  for (const list of [SLAB_BRUSHES, BASE_BRUSHES]) expect(new Set(list.map((b) => b.card.name)).size).toBe(list.length);
});

test('the slab has a brush for every action on clay, and a fresh cast starts from a plain stamp', () => {
  expect([...SLAB_BRUSHES.map((b) => b.touch.action)].sort()).toEqual([...CLAY_ACTIONS].sort());
  expect([STAMP_BASE.stroke.type, STAMP_BASE.form.alphaId]).toEqual(['press', null]);
});

test.each(all.map((b) => [`${b.card.name} (${b.id.slice(-2)})`, b] as const))(
  '%s changes the clay under its stroke alone, and undo gives it back',
  (_, brush) => {
    const { s, before, touched, after } = stroked(brush);
    expect(touched).toBeGreaterThan(20);
    const masks = brush.touch.action === 'mask';
    expect(after.mask.some((m, i) => m !== before.mask[i])).toBe(masks);
    expect(after.positions.some((c, i) => c !== before.positions[i])).toBe(!masks);
    // A grown stamp is as large as its drag is long.
    const reach = brush.stroke.type === 'grow' ? 0.9 : 0.3 + brush.stroke.size * 1.5;
    const beyond = (i: number): boolean =>
      Math.hypot(before.positions[i - (i % 3)], before.positions[i - (i % 3) + 1]) > reach + 0.1;
    expect(after.positions.filter((c, i) => c !== before.positions[i] && beyond(i))).toHaveLength(0);
    undo(s);
    expect(s.surface.mesh.positions).toEqual(before.positions);
    expect(s.surface.mesh.mask).toEqual(before.mask);
  },
);

test('slab brushes that raise work straight up, so that what they leave can be cast', () => {
  for (const brush of SLAB_BRUSHES.filter((b) => b.touch.action === 'lift' || b.touch.action === 'build')) {
    const { before, after } = stroked(brush);
    const moved = before.positions.map((c, i) => after.positions[i] - c);
    expect(Math.max(...moved.filter((_, i) => i % 3 < 2).map(Math.abs))).toBeLessThan(1e-6);
    expect(Math.min(...moved.filter((_, i) => i % 3 === 2))).toBeGreaterThan(-1e-6);
    expect(Math.max(...moved)).toBeGreaterThan(0.001);
  }
});
