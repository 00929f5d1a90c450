import { resolveBrush, type ResolvedBrush } from '#core/brush';
import { brushChecks } from '#core/checks';
import { newPicture, pyramid, type Picture } from '#core/picture';
import { newBrush, type Brush } from '#core/settings';
import { calmSpacing, detailShown, dabCut, fullHeight, ripple, runCut, shareAt, stampMeasures } from './index';

type Change = { form?: Partial<Brush['form']>; touch?: Partial<Brush['touch']>; stroke?: Partial<Brush['stroke']> };

function made(change: Change = {}, picture: Picture | null = null): ResolvedBrush {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Profile');
  return resolveBrush(
    {
      ...brush,
      form: { ...brush.form, ...change.form },
      touch: { ...brush.touch, ...change.touch },
      stroke: { ...brush.stroke, ...change.stroke },
    },
    picture && { pyramid: pyramid(picture), relief: 0.2, vector: null },
  );
}
const falloff = (kind: Brush['touch']['falloff']['kind']): Brush['touch']['falloff'] => ({
  kind,
  hold: 0.6,
  nodes: [],
});

/** A round boss of grey 1 on a ground of `ground`. */
function boss(ground: number, size = 128): Picture {
  const picture = newPicture(size);
  for (let i = 0; i < picture.data.length; i++) {
    const away = Math.hypot(((i % size) + 0.5) / size - 0.5, (Math.floor(i / size) + 0.5) / size - 0.5);
    picture.data[i] = away < 0.25 ? 1 : ground;
  }
  return picture;
}

describe('cut through one dab', () => {
  test('a plain bell is depth · 0.1 · 2r high in the middle and follows (1 − ρ²)²', () => {
    const brush = made({
      stroke: { size: 0.4 },
      form: { depth: 200 },
      touch: { falloff: falloff('bell'), strength: 50 },
    });
    expect(fullHeight(brush)).toBeCloseTo(0.16, 9);
    const { at, height } = dabCut(brush, 230);
    height.forEach((h, i) => {
      const rho = Math.abs(at[i]);
      expect(h).toBeCloseTo(rho < 1 ? 0.08 * (1 - rho * rho) ** 2 : 0, 5);
    });
  });

  test('a crease cuts as deep as a lift is high, in one dab and in a run', () => {
    const of = (action: 'lift' | 'crease') =>
      made({ stroke: { size: 0.2, spacing: 12 }, touch: { action, falloff: falloff('needle') } });
    expect(Math.min(...dabCut(of('crease')).height)).toBeCloseTo(-0.04, 6);
    for (const through of [dabCut, runCut])
      expect(Array.from(through(of('crease')).height, (h) => (h === 0 ? 0 : -h))).toEqual(
        Array.from(through(of('lift')).height),
      );
  });

  test('outside the alpha’s square and the footprint nothing is moved', () => {
    const brush = made({ form: { fit: 2, footprint: 'square' }, touch: { falloff: falloff('full') } }, boss(0.5));
    expect(shareAt(brush, 0.45, 0.45)).toBeCloseTo(0.5, 6);
    expect(shareAt(brush, 0.55, 0)).toBe(0);
    expect(shareAt(made(), 1.01, 0)).toBe(0);
  });
});

describe('a run of dabs', () => {
  test('Even is never higher than one dab; adding up at half the spacing is about twice as high', () => {
    const high = (overlaps: 'even' | 'add', spacing: number): number =>
      Math.max(...runCut(made({ touch: { overlaps, falloff: falloff('bell') }, stroke: { spacing } })).height);
    const one = Math.max(...dabCut(made({ touch: { falloff: falloff('bell') } })).height);
    expect(high('even', 10)).toBeCloseTo(one, 6);
    expect(high('add', 5) / high('add', 10)).toBeCloseTo(2, 1);
  });

  test('ripple grows with spacing and is nothing for dabs that stand apart', () => {
    const brush = made({ touch: { falloff: falloff('dome') } });
    const found = [0.05, 0.2, 0.4, 0.7].map((spacing) => ripple(brush, spacing));
    for (let i = 1; i < found.length; i++) expect(found[i]).toBeGreaterThan(found[i - 1]);
    expect(ripple(brush, 1)).toBe(0);
  });

  test('the calmer spacing keeps the limit and one per cent more does not', () => {
    const brush = made({ touch: { falloff: falloff('cone') }, stroke: { spacing: 60 } });
    const spacing = calmSpacing(brush, 0.06);
    expect(ripple(brush, spacing / 100)).toBeLessThanOrEqual(0.06);
    expect(ripple(brush, (spacing + 1) / 100)).toBeGreaterThan(0.06);
  });
});

describe('checks', () => {
  const names = (brush: ResolvedBrush, spacing = 0.004) =>
    brushChecks(brush, { spacing, finer: true })
      .checks.filter((c) => !c.ok)
      .map((c) => c.name);

  test('a well-made stamp has nothing to mend', () => {
    expect(names(made({ touch: { falloff: falloff('full') }, stroke: { type: 'press', size: 0.5 } }, boss(0)))).toEqual(
      [],
    );
  });

  test('a ground set too low leaves a disc, whose mend takes it away', () => {
    const change: Change = { touch: { falloff: falloff('plateau') }, stroke: { type: 'press', size: 0.5 } };
    const brush = made(change, boss(0.3));
    expect(names(brush)).toContain('disc');
    const { mend } = brushChecks(brush, null).checks.find((c) => c.name === 'disc')!;
    expect(mend).toMatchObject({ kind: 'set', path: 'form.ground', value: 0.3 });
    expect(names(made({ ...change, form: { ground: 0.3 } }, boss(0.3)))).toEqual([]);
  });

  test('a ground set too high leaves a dent all over, whose mend takes it away; a crack on white is none', () => {
    const faint = boss(0.1);
    faint.data = faint.data.map((h) => h * 0.3);
    const change: Change = {
      form: { ground: 0.5 },
      touch: { falloff: falloff('plateau') },
      stroke: { type: 'press', size: 0.5 },
    };
    expect(names(made(change, faint))).toContain('disc');
    const { mend } = brushChecks(made(change, faint), null).checks.find((c) => c.name === 'disc')!;
    expect(mend).toMatchObject({ kind: 'set', path: 'form.ground', value: 0.3 });
    const crack = boss(1);
    crack.data = crack.data.map((h, i) => (i % 128 === 64 ? 0 : h));
    expect(names(made({ ...change, form: { ground: 1 } }, crack))).not.toContain('disc');
  });

  test('full weight on an alpha that isn’t down at the rim leaves a step, a plateau takes it away', () => {
    const brush = made(
      { form: { ground: 0.1 }, touch: { falloff: falloff('full') }, stroke: { type: 'press', size: 0.5 } },
      boss(0.3),
    );
    expect(stampMeasures(brush).rimStep).toBeCloseTo(0.2, 3);
    expect(names(brush)).toContain('rim-step');
    expect(names(made({ form: { ground: 0.1 }, touch: { falloff: falloff('plateau') } }, boss(0.3)))).not.toContain(
      'rim-step',
    );
  });

  test('a wide spacing ripples, a press never does', () => {
    const wide: Change = { touch: { falloff: falloff('cone') }, stroke: { type: 'trail', spacing: 60 } };
    expect(names(made(wide))).toEqual(['ripple']);
    expect(names(made({ ...wide, stroke: { type: 'press', spacing: 60 } }))).toEqual([]);
  });

  test('fine stripes need a fine body; the share held falls as the body gets coarser', () => {
    const stripes = newPicture(256);
    for (let i = 0; i < stripes.data.length; i++)
      stripes.data[i] = 0.5 + 0.5 * Math.sin(((i % 256) / 256) * 2 * Math.PI * 20);
    const brush = made(
      {
        stroke: { type: 'press', size: 0.25 },
        form: { ground: 0.5, footprint: 'square' },
        touch: { falloff: falloff('plateau') },
      },
      stripes,
    );
    const held = [0.001, 0.004, 0.008, 0.016, 0.03].map((spacing) => detailShown(brush, spacing));
    expect(held[0]).toBeCloseTo(1, 2);
    for (let i = 1; i < held.length; i++) expect(held[i]).toBeLessThan(held[i - 1] + 1e-12);
    expect(held.at(-1)).toBeLessThan(0.2);
    expect(names(brush, 0.03)).toEqual(['detail']);
    expect(brushChecks(brush, { spacing: 0.03, finer: false }).checks[0].mend).toBeNull();
    expect(names(brush, 0.002)).toEqual([]);
  });

  test.each([
    ['needle', 0.75 ** 3],
    ['cone', 0.75],
    ['bell', (1 - 1 / 16) ** 2],
    ['full', 1],
  ] as const)('a plain %s keeps of its peak what is left midway between vertices half a radius apart', (kind, held) => {
    const brush = made({ stroke: { size: 0.2 }, touch: { falloff: falloff(kind) } });
    expect(detailShown(brush, 0.1)).toBeCloseTo(held, 2);
    expect(names(brush, 0.1).includes('detail')).toBe(held < 0.85);
  });

  test('a fine line on a coarse body asks for a finer one; an action that shapes nothing asks for none', () => {
    const line = { stroke: { size: 0.05 }, touch: { action: 'crease', falloff: falloff('needle') } } as const;
    expect(names(made(line), 0.03)).toContain('detail');
    expect(names(made({ ...line, touch: { ...line.touch, action: 'smooth' } }), 0.03)).not.toContain('detail');
  });
});
