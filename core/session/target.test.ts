import { buildMesh, plane } from '#core/mesh';
import { STROKE_TYPES } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type StrokeRecord } from '#core/stroke';
import { clayTarget, endStroke, beginStroke, extendStroke, type Target } from './index';
import { changesOf, rewind, runWhole } from './runner';
import { down, slabSession, start, testBrush } from './testKit';

const clay = () => surface(buildMesh(plane(48, 2)));
const samples = [
  [-0.3, 0],
  [-0.1, 0.1],
  [0.1, 0.05],
  [0.2, 0.3],
].map(([x, y], i) => ({ ...down(x, y), time: i * 90 }));

function strokeOf(type: (typeof STROKE_TYPES)[number]): StrokeRecord {
  const brush = testBrush({ stroke: { type, size: 0.2, taperEnd: 2 } });
  return { ...start(brush, { symmetry: { ...NO_SYMMETRY, mirrorX: true } }), samples: [...samples] };
}

/** A target that only writes down what it is asked. */
function noting(name: string, said: string[]): Target {
  return {
    gather: (dabs) => {
      said.push(`${name} gathers ${dabs.length}`);
      return 1;
    },
    apply: () => void said.push(`${name} applies`),
    rewind: () => void said.push(`${name} rewinds`),
    end: () => {
      said.push(`${name} ends`);
      return [{ kind: 'beside', text: name }];
    },
  };
}

test('all targets gather a dab and its copies before any of them takes it', () => {
  const said: string[] = [];
  const r = runWhole(clay(), strokeOf('press'), [noting('one', said), noting('two', said)]);
  const dab = ['one gathers 2', 'two gathers 2', 'one applies', 'two applies'];
  // A press is laid for the last of samples that came together alone.
  expect(said).toEqual(dab);
  expect(r.touched).toBe(2);
  rewind(r);
  expect(changesOf(r)).toEqual([
    { kind: 'beside', text: 'one' },
    { kind: 'beside', text: 'two' },
  ]);
  expect(said.slice(dab.length)).toEqual(['one rewinds', 'two rewinds', 'one ends', 'two ends']);
});

test.each(STROKE_TYPES)('%s: clay beside another target takes the same as alone, and so does a second clay', (type) => {
  const record = strokeOf(type);
  const alone = clay();
  runWhole(alone, record);
  const [first, second] = [clay(), clay()];
  const targets = [clayTarget(first, record.brush), noting('other', []), clayTarget(second, record.brush)];
  const changes = changesOf(runWhole(first, record, targets));
  expect(first.mesh.positions).toEqual(alone.mesh.positions);
  expect(second.mesh.positions).toEqual(alone.mesh.positions);
  expect(alone.mesh.positions).not.toEqual(clay().mesh.positions);
  expect(changes.map(({ kind }) => kind)).toEqual(['leaves', 'beside', 'leaves']);
});

test('a stroke that touched nothing changed nothing', () => {
  const s = slabSession();
  beginStroke(s, start(testBrush()));
  extendStroke(s, [down(5, 5)]);
  expect(endStroke(s)).toMatchObject({ dabs: 0, touched: 0 });
  expect(s.done).toHaveLength(0);
});
