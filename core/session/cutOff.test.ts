import { plane, weld } from '#core/mesh';
import { cutOff, maskLastRaised, replay, undo, type Session } from './index';
import { heightNear, slabSession, stroke, testBrush } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const stamp = testBrush({
  stroke: { type: 'press', size: 0.4 },
  touch: { falloff: { kind: 'full', hold: 0, nodes: [] } },
});

function volume(p: Float32Array, t: Uint32Array): number {
  let six = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i] * 3, t[i + 1] * 3, t[i + 2] * 3];
    six +=
      p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) -
      p[a + 1] * (p[b] * p[c + 2] - p[b + 2] * p[c]) +
      p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c]);
  }
  return six / 6;
}

describe('cut off', () => {
  test('what a stamp raised is masked, and nothing else', () => {
    const s = slabSession();
    expect(maskLastRaised(s)).toBe(false);
    stroke(s, stamp, [[0, 0]]);
    expect(maskLastRaised(s)).toBe(true);
    const { mask, positions: p } = s.surface.mesh;
    mask.forEach((m, v) => expect(m).toBe(p[v * 3 + 2] > 0 ? 1 : 0));
  });

  test('the cut is closed and faces outwards; its volume is that of the raised disc and its back', () => {
    const s = slabSession(plane(128, 2));
    stroke(s, stamp, [[0, 0]]);
    maskLastRaised(s);
    const cut = cutOff(s, 0.02)!;
    const { open, components, dropped } = weld(cut);
    expect([open, components, dropped]).toEqual([0, 1, 0]);
    // Radius 0.4, height 0.08 over the slab and 0.02 under it.
    const disc = Math.PI * 0.16 * 0.1;
    expect(volume(cut.positions, cut.triangles)).toBeGreaterThan(disc * 0.93);
    expect(volume(cut.positions, cut.triangles)).toBeLessThan(disc);
  });

  test('the body is untouched where the cut was; undo brings it back, replay cuts again', () => {
    const s = slabSession();
    const flat = bytes(s);
    stroke(s, stamp, [[0, 0]]);
    const raised = bytes(s);
    maskLastRaised(s);
    cutOff(s, 0.02);
    expect(bytes(s)).toEqual(flat);
    expect(s.surface.mesh.mask.every((m) => m === 0)).toBe(true);
    replay(s, new Map());
    expect(bytes(s)).toEqual(flat);
    undo(s);
    expect(bytes(s)).toEqual(raised);
  });

  test('several letters of one stroke come off together, each closed', () => {
    const s = slabSession(plane(128, 2));
    stroke(
      s,
      testBrush({
        stroke: { type: 'trail', size: 0.1, spacing: 200 },
        touch: { falloff: { kind: 'full', hold: 0, nodes: [] } },
      }),
      [
        [-0.6, 0],
        [0.6, 0],
      ],
    );
    maskLastRaised(s);
    const { open, components } = weld(cutOff(s, 0.01)!);
    expect([open, components]).toEqual([0, 4]);
  });

  test('nothing masked is nothing to cut', () => {
    const s = slabSession();
    stroke(s, stamp, [[0, 0]]);
    expect(cutOff(s, 0.02)).toBeNull();
    expect(heightNear(s, 0, 0)).toBeGreaterThan(0);
  });
});
