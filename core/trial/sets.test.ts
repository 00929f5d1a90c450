import { resolveBrush } from '#core/brush';
import { body, BODIES, buildMesh, weld } from '#core/mesh';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { newBrush } from '#core/settings';
import { surface } from '#core/sculpt';
import { trialSets } from './index';

const sets = trialSets();

test('the shipped sets have names of their own', () => {
  expect(new Set(sets.map((s) => s.name)).size).toBe(8);
});

test.each(sets.map((s) => [s.label, s] as const))('%s: its strokes meet their body, whatever the type', (_, set) => {
  for (const type of ['trail', 'press', 'grow', 'pull'] as const) {
    const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Trial');
    brush.stroke.type = type;
    brush.stroke.size = 0.12;
    const s = session(surface(buildMesh(body(set.body ?? 'ball', 36))), { replay: false });
    for (const { samples, ...start } of set.strokes) {
      beginStroke(s, { ...start, brush: resolveBrush(brush, null) });
      extendStroke(s, samples);
      // A single press has no drag to take a size or a height from.
      if (samples.length > 1 || (type !== 'grow' && type !== 'pull')) expect(endStroke(s).touched).toBeGreaterThan(0);
      else endStroke(s);
    }
    expect(s.surface.mesh.positions.every(Number.isFinite)).toBe(true);
  }
});

test.each(BODIES)('the body %s is closed, in one component, and of about the plain ball’s size', (name) => {
  const raw = body(name, 24);
  const { open, components, dropped } = weld(raw);
  expect([open, components, dropped]).toEqual([0, 1, 0]);
  const reach = raw.positions.reduce((most, c) => Math.max(most, Math.abs(c)), 0);
  expect(reach).toBeGreaterThan(0.6);
  expect(reach).toBeLessThanOrEqual(1.05);
});
