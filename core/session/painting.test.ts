import { resolveBrush, type ResolvedBrush } from '#core/brush';
import { ball, boxCoordinates, buildMesh, plane } from '#core/mesh';
import { Flattener, texelAt, tilesOf, type Texture } from '#core/paint';
import { seeded } from '#core/random';
import { newBrush, type Brush } from '#core/settings';
import { surface } from '#core/sculpt';
import {
  abandon,
  beginStroke,
  bringPainting,
  changeLayers,
  clearStrokes,
  endStroke,
  extendStroke,
  letStay,
  redo,
  replay,
  resizePainting,
  session,
  undo,
  type Session,
} from './index';
import { BRUSH_ID, down, start } from './testKit';

const CELLS = 16;

function paintSession(undoLimit?: number): Session {
  const carried = { coordinates: boxCoordinates(CELLS, CELLS, CELLS), groups: null };
  const s = session(surface(buildMesh({ ...ball(CELLS), carried })), {
    replay: true,
    ...(undoLimit === undefined ? {} : { undoLimit }),
  });
  bringPainting(s, 512);
  return s;
}

type Change = {
  touch?: Partial<Brush['touch']>;
  stroke?: Partial<Brush['stroke']>;
  colour?: Partial<Brush['colour']>;
};

function brushOf({ touch, stroke, colour }: Change = {}): ResolvedBrush {
  const brush = newBrush(BRUSH_ID, 'Test');
  return resolveBrush(
    {
      ...brush,
      touch: { ...brush.touch, action: 'paint', ...touch },
      stroke: { ...brush.stroke, size: 0.2, ...stroke },
      colour: { ...brush.colour, ...colour },
    },
    null,
  );
}

function draw(s: Session, brush: ResolvedBrush, points: readonly (readonly [number, number])[], more = {}): void {
  beginStroke(s, start(brush, more));
  for (const [x, y] of points) extendStroke(s, [down(x, y)]);
  endStroke(s);
}

/** What is seen, as one number. */
function seen({ painting }: Session): number {
  let out = 1;
  const flat = new Flattener();
  for (const tile of tilesOf(painting!.layers)) {
    if (!flat.flatten(painting!.layers, tile)) continue;
    const words = flat.words();
    if (words.every((w) => w === 0)) continue;
    out = Math.imul(out ^ tile, 16777619);
    for (const word of words) out = Math.imul(out ^ word, 16777619);
  }
  return out;
}
const tilesIn = (s: Session, layer = 0): Texture => ({ size: 512, tiles: s.painting!.layers[layer]!.tiles });
function most(on: Texture): readonly [number, number, number, number] {
  let best: readonly [number, number, number, number] = [0, 0, 0, 0];
  for (let y = 0; y < 512; y += 2)
    for (let x = 0; x < 512; x += 2) {
      const here = texelAt(on, x, y);
      if (here[3] > best[3]) best = here;
    }
  return best;
}

const ACROSS = [
  [-0.4, 0.1],
  [0, 0.2],
  [0.4, -0.1],
] as const;

test('painting leaves the clay and is undone and redone to the byte', () => {
  const s = paintSession();
  const places = s.surface.mesh.positions.slice();
  const states = [seen(s)];
  for (const brush of [
    brushOf(),
    brushOf({ colour: { first: '#c03020', flow: 40, hue: 40 }, touch: { overlaps: 'add' } }),
    brushOf({ touch: { action: 'smudge' } }),
    brushOf({ touch: { action: 'erase' }, stroke: { size: 0.1 } }),
    brushOf({ touch: { action: 'fill' }, colour: { fills: 'island', opacity: 50 } }),
  ]) {
    draw(s, brush, ACROSS);
    states.push(seen(s));
  }
  expect(new Set(states).size).toBe(states.length);
  expect(s.surface.mesh.positions).toEqual(places);
  for (let i = states.length - 2; i >= 0; i--) {
    expect(undo(s)).toBe(true);
    expect(seen(s)).toBe(states[i]);
  }
  expect(undo(s)).toBe(false);
  for (let i = 1; i < states.length; i++) {
    expect(redo(s)).toBe(true);
    expect(seen(s)).toBe(states[i]);
  }
});

test('a stroke that is redrawn with every sample leaves nothing of its former places; given up it leaves nothing', () => {
  const s = paintSession();
  const press = brushOf({ stroke: { type: 'press' }, colour: { hue: 90, per: 'dab' } });
  draw(s, press, [[0.1, 0.1]]);
  const alone = seen(s);
  undo(s);
  draw(s, press, [
    [-0.5, 0],
    [-0.2, 0.3],
    [0.1, 0.1],
  ]);
  expect(seen(s)).toBe(alone);
  undo(s);
  const before = seen(s);
  beginStroke(s, start(press));
  extendStroke(s, [down(0, 0)]);
  expect(seen(s)).not.toBe(before);
  abandon(s);
  expect(seen(s)).toBe(before);
});

test('strokes follow a setting: replayed they are what the hand would have drawn with it', () => {
  const [s, fresh] = [paintSession(), paintSession()];
  const [old, now] = [brushOf(), brushOf({ stroke: { size: 0.25 }, colour: { lightness: 20, per: 'stroke' } })];
  for (const on of [s, fresh]) {
    changeLayers(on, { kind: 'add', id: 'two', name: 'Two', above: null });
    draw(on, on === s ? old : now, ACROSS, { layer: { layer: 'two', mask: false } });
    changeLayers(on, { kind: 'set', id: 'two', to: { opacity: 0.5 } });
    draw(on, on === s ? old : now, [[0, 0.4]], { layer: { layer: 'first', mask: false } });
  }
  replay(s, new Map([[BRUSH_ID, now]]));
  expect(seen(s)).toBe(seen(fresh));
  // What stood before was dropped from memory: the same again, from the layers that painting began with.
  const small = paintSession(1);
  changeLayers(small, { kind: 'add', id: 'two', name: 'Two', above: null });
  draw(small, old, ACROSS, { layer: { layer: 'two', mask: false } });
  changeLayers(small, { kind: 'set', id: 'two', to: { opacity: 0.5 } });
  draw(small, old, [[0, 0.4]], { layer: { layer: 'first', mask: false } });
  replay(small, new Map([[BRUSH_ID, now]]));
  expect(seen(small)).toBe(seen(fresh));
});

test('one stroke sculpts and paints: with one undo both are as before, and the layer takes no more than its flow', () => {
  const s = paintSession();
  const places = s.surface.mesh.positions.slice();
  draw(s, brushOf({ touch: { action: 'lift' }, colour: { too: true, flow: 50 } }), ACROSS);
  expect(s.surface.mesh.positions).not.toEqual(places);
  expect(most(tilesIn(s))[3]).toBeCloseTo(0.5, 2);
  expect(s.done.length).toBe(1);
  const painted = seen(s);
  undo(s);
  expect(s.surface.mesh.positions).toEqual(places);
  expect(s.painting!.layers[0]!.tiles.size).toBe(0);
  redo(s);
  expect(seen(s)).toBe(painted);
  // A brush that leaves the texture leaves it.
  draw(s, brushOf({ touch: { action: 'lift' } }), [[0, -0.5]]);
  expect(seen(s)).toBe(painted);
});

test('a hidden mask hides, what is locked stays clear, what is masked on the clay isn’t painted', () => {
  const s = paintSession();
  draw(s, brushOf(), ACROSS);
  const painted = seen(s);
  changeLayers(s, { kind: 'mask', id: 'first', on: true });
  expect(seen(s)).toBe(painted);
  draw(s, brushOf({ stroke: { size: 0.5 } }), ACROSS, { layer: { layer: 'first', mask: true } });
  expect(seen(s)).not.toBe(painted);
  const falloff = { kind: 'full' as const, hold: 0.6, nodes: [] };
  draw(s, brushOf({ stroke: { size: 0.6 }, touch: { action: 'erase', falloff } }), ACROSS, {
    layer: { layer: 'first', mask: true },
  });
  expect(seen(s)).toBe(painted);
  changeLayers(s, { kind: 'set', id: 'first', to: { locked: true } });
  const cover = (): number =>
    [...tilesIn(s).tiles.values()].reduce((n, w) => n + w.filter((x, i) => i % 4 === 3 && x > 0).length, 0);
  const before = cover();
  draw(s, brushOf({ stroke: { size: 0.6 }, colour: { first: '#ff0000' } }), ACROSS);
  expect(cover()).toBe(before);
  expect(seen(s)).not.toBe(painted);
  const masked = paintSession();
  masked.surface.mesh.mask.fill(1);
  draw(masked, brushOf(), ACROSS);
  expect(masked.done.length).toBe(0);
});

test('a fill goes over all, or over one island; half masked it keeps off', () => {
  const s = paintSession();
  const fill = (fills: Brush['colour']['fills']): number => {
    draw(s, brushOf({ touch: { action: 'fill' }, colour: { fills } }), [[0, 0]]);
    let covered = 0;
    for (const words of tilesIn(s).tiles.values())
      for (let i = 3; i < words.length; i += 4) covered += words[i]! / 65_535;
    undo(s);
    return covered / 512 ** 2;
  };
  expect(fill('all')).toBe(1);
  // A ball hangs together, and one of its six islands is the sixth part of what they have.
  const part = fill('part');
  expect(fill('island') / part).toBeCloseTo(1 / 6, 2);
  expect(part).toBeLessThan(1);
  const { mesh } = s.surface;
  for (let v = 0; v < mesh.vertexCount; v++) mesh.mask[v] = mesh.positions[v * 3]! < 0 ? 1 : 0;
  expect(fill('part') / part).toBeCloseTo(0.5, 1);
});

test('a fill by colour goes as far as the colour does, over seams, and no further', () => {
  const s = paintSession();
  // A ring round the ball, over four islands, parts its upper from its lower half.
  const ring = brushOf({ colour: { first: '#202020' }, touch: { falloff: { kind: 'full', hold: 0.6, nodes: [] } } });
  beginStroke(s, start(ring));
  for (let i = 0; i <= 64; i++) {
    const a = (i / 64) * 2 * Math.PI;
    const [x, z] = [Math.cos(a), Math.sin(a)];
    extendStroke(s, [{ origin: [x * 5, 0, z * 5], direction: [-x, 0, -z] }]);
  }
  endStroke(s);
  draw(s, brushOf({ touch: { action: 'fill' }, colour: { fills: 'colour', first: '#e0e0e0', tolerance: 2 } }), [
    [0, 0.6],
  ]);
  const { mesh } = s.surface;
  const c = mesh.carried!.coordinates!;
  const at = (y: number) => {
    const light: number[] = [];
    for (let t = 0; t < mesh.triangleCount; t++) {
      const place = mesh.positions[mesh.triangles[t * 3]! * 3 + 1]!;
      if (Math.sign(place) !== Math.sign(y) || Math.abs(place) < 0.4) continue;
      const [u, v] = [0, 1].map((k) => (c[t * 6 + k]! + c[t * 6 + 2 + k]! + c[t * 6 + 4 + k]!) / 3) as [number, number];
      light.push(texelAt(tilesIn(s), Math.floor(u * 512), Math.floor((1 - v) * 512))[0]);
    }
    return light;
  };
  expect(Math.min(...at(1))).toBeGreaterThan(0.85);
  expect(Math.max(...at(-1))).toBe(0);
});

test('whatever comes in whichever order, each undo and redo leads to what stood there', () => {
  for (let seed = 1; seed <= 4; seed++) {
    const s = paintSession(seed % 2 ? undefined : 400_000);
    const random = seeded(seed);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
    let states = [seen(s)];
    let at = 0;
    let ids = 0;
    for (let n = 0; n < 26; n++) {
      const layers = s.painting!.layers.map(({ id }) => id);
      const step = Math.floor(random() * 9.3);
      const before = s.done.length;
      if (step < 3) {
        const touch = { action: pick(['paint', 'smudge', 'erase'] as const), overlaps: pick(['even', 'add'] as const) };
        draw(
          s,
          brushOf({ touch, colour: { hue: 60, flow: 70 } }),
          [
            [random() - 0.5, random() - 0.5],
            [random() - 0.5, 0],
          ],
          {
            seed: n,
            layer: { layer: pick(layers), mask: false },
          },
        );
      } else if (step === 3) changeLayers(s, { kind: 'add', id: `l${ids++}`, name: 'New', above: pick(layers) });
      else if (step === 4) changeLayers(s, { kind: 'set', id: pick(layers), to: { opacity: random() } });
      else if (step === 5) changeLayers(s, { kind: 'copy', id: pick(layers), as: `l${ids++}`, name: 'Copy' });
      else if (step === 6 && layers.length > 1) changeLayers(s, { kind: 'remove', id: pick(layers) });
      else if (step === 9) resizePainting(s, pick([512, 1024]));
      else if (step === 7 && at > 0) {
        undo(s);
        at--;
      } else if (step === 8 && at < states.length - 1) {
        redo(s);
        at++;
      }
      if (s.done.length > before && step !== 7 && step !== 8) {
        states = [...states.slice(0, at + 1), seen(s)];
        at++;
      }
      expect([seed, n, seen(s)]).toEqual([seed, n, states[at]]);
    }
    replay(s, new Map());
    expect(seen(s)).toBe(states[at]);
    clearStrokes(s);
    expect(seen(s)).toBe(states[0]);
  }
});

test('a body without coordinates takes no paint and keeps what is drawn otherwise', () => {
  const s = session(surface(buildMesh(plane(16, 2))), { replay: true });
  bringPainting(s, 512);
  draw(s, brushOf(), ACROSS);
  expect(s.done.length).toBe(0);
  draw(s, brushOf({ touch: { action: 'lift' }, colour: { too: true } }), ACROSS);
  expect(s.done.length).toBe(1);
});

test('a stroke keeps the colours it was drawn with, and takes every other setting', () => {
  const s = paintSession();
  draw(s, brushOf({ colour: { first: '#ff0000' } }), [[0, 0]]);
  draw(s, brushOf({ colour: { first: '#0000ff' } }), [[0, 0.6]]);
  const drawn = seen(s);
  replay(s, new Map([[BRUSH_ID, brushOf({ colour: { first: '#00ff00' } })]]));
  expect(seen(s)).toBe(drawn);
  replay(s, new Map([[BRUSH_ID, brushOf({ colour: { first: '#00ff00' }, stroke: { size: 0.1 } })]]));
  expect(seen(s)).not.toBe(drawn);
  expect(most(tilesIn(s)).slice(0, 3)).not.toEqual([0, 1, 0]);
});

test('strokes that stay keep every setting, beside strokes that follow; let go they follow again', () => {
  const s = paintSession();
  draw(s, brushOf(), [[0, 0]], { stays: true });
  const alone = seen(s);
  const large = new Map([[BRUSH_ID, brushOf({ stroke: { size: 0.3 } })]]);
  replay(s, large);
  expect(seen(s)).toBe(alone);
  draw(s, brushOf(), [[0, 0.6]]);
  const both = seen(s);
  replay(s, large);
  const one = seen(s);
  expect(one).not.toBe(both);
  undo(s);
  expect(seen(s)).toBe(alone);
  redo(s);
  expect(seen(s)).toBe(one);
  letStay(s, false);
  replay(s, large);
  expect(seen(s)).not.toBe(one);
  letStay(s, true);
  const stayed = seen(s);
  replay(s, new Map([[BRUSH_ID, brushOf()]]));
  expect(seen(s)).toBe(stayed);
});

test('the texture becomes larger and smaller with what is on it, as a step that is undone, redone and run again', () => {
  const s = paintSession();
  draw(s, brushOf(), [[0, 0]]);
  const small = seen(s);
  resizePainting(s, 1024);
  expect([s.painting!.size, s.done.length]).toEqual([1024, 2]);
  draw(s, brushOf(), [[0, 0.6]]);
  const large = seen(s);
  undo(s);
  undo(s);
  expect([s.painting!.size, seen(s)]).toEqual([512, small]);
  redo(s);
  redo(s);
  expect([s.painting!.size, seen(s)]).toEqual([1024, large]);
  replay(s, new Map([[BRUSH_ID, brushOf({ stroke: { size: 0.1 } })]]));
  expect([s.painting!.size, s.done.length, seen(s) === large]).toEqual([1024, 3, false]);
  replay(s, new Map([[BRUSH_ID, brushOf()]]));
  expect(seen(s)).toBe(large);
  clearStrokes(s);
  expect([s.painting!.size, tilesOf(s.painting!.layers)]).toEqual([512, []]);
});
