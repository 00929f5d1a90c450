/** slab_open_ms, level_up_ms and draft_ms: a slab of 1 M vertices. */
import { positionsOut, plane } from '#core/mesh';
import { layeredNoise } from '#core/random';
import { clay, stepLevel } from '#core/slab';
import { time, type Figure } from './measure';

const CELLS = 1024;

export function slabFigures(): Figure[] {
  const places = plane(CELLS, 2).positions;
  for (let i = 0; i < places.length; i += 3) places[i + 2] = 0.1 * layeredNoise(places[i] * 6, places[i + 1] * 6, 1, 4);
  const open = time(3, 1, () => clay({ cells: CELLS, places, mask: null, upper: [] }));
  const copies = time(5, 2, () => places.slice());
  const half = clay({ cells: CELLS / 2, places: null, mask: null, upper: [] });
  const up = time(1, 0, () => stepLevel(half, 'up'));
  const whole = clay({ cells: CELLS, places, mask: null, upper: [] });
  const draft = time(5, 2, () => positionsOut(whole.surface.mesh));
  return [
    {
      key: 'slab_open_ms',
      what: 'laying out 1 M vertices: order, rings, normals, boxes, work lists',
      value: open,
      unit: 'ms',
      floor: { what: 'copying their places', value: copies },
      target: { text: '≤ 2000 with the page', met: open <= 1600 },
    },
    {
      key: 'level_up_ms',
      what: 'from 263 k to 1 M vertices',
      value: up,
      unit: 'ms',
      floor: { what: 'laying out the finer level alone', value: open },
      target: { text: 'none set', met: true },
    },
    {
      key: 'draft_ms',
      what: 'what keeping a draft takes of the hand’s own thread',
      value: draft,
      unit: 'ms',
      floor: { what: 'copying the places', value: copies },
      target: { text: 'none set', met: true },
    },
  ];
}
