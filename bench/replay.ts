/** replay_ms of a 40-dab stroke on half a million vertices, strip_ms, and what a body of 5 M triangles weighs. */
import { resolveBrush } from '#core/brush';
import { body, buildMesh, plane } from '#core/mesh';
import { newPicture, pyramid } from '#core/picture';
import { newBrush } from '#core/settings';
import { beginStroke, endStroke, extendStroke, replay, session } from '#core/session';
import { finish, surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { brushStrip, stripClay } from '#core/thumbnail';
import { median, time, type Figure } from './measure';

/** Pixels. */
const STRIP_WIDTH = 960;

const RUNS = 9;
const RADIUS = 0.25;

export function replayFigures(): Figure[] {
  const picture = newPicture(512);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = 0.5 + 0.5 * Math.sin((i % 512) / 9) * Math.sin(i / 512 / 13);
  const brush = newBrush('b0000000-0000-4000-8000-0000000000fc', 'Bench');
  Object.assign(brush.stroke, { size: RADIUS, spacing: 9 });
  const resolved = resolveBrush(brush, { pyramid: pyramid(picture), relief: 0.1, vector: null });

  const s = session(finish(surface(buildMesh(body('ball', 290), { unfinished: true }))), { replay: true });
  beginStroke(s, {
    brush: resolved,
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(
    s,
    Array.from({ length: 40 }, (_, i) => ({
      origin: [-0.75 + (i / 39) * 1.5, 0.3 * Math.sin(i / 6), 3],
      direction: [0, 0, -1],
    })),
  );
  const { dabs, touched } = endStroke(s);
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const began = performance.now();
    replay(s, new Map([[resolved.id, resolved]]));
    times.push(performance.now() - began);
  }
  const replayMs = median(times.slice(2));
  const floor = time(5, 2, () => new Float32Array(touched * 3).fill(1));

  const clay = stripClay(STRIP_WIDTH);
  const stripMs = time(5, 1, () => brushStrip(clay, resolved, STRIP_WIDTH));

  const large = buildMesh(plane(1580, 2), { unfinished: true });
  const whole = surface(large);
  const bytes = whole.mesh.room.top;
  const triangles = large.triangleCount;
  return [
    {
      key: 'replay_ms',
      what: `replay of a ${dabs}-dab stroke on ${Math.round(s.surface.mesh.vertexCount / 1000)} k vertices, ${(replayMs / dabs).toFixed(2)} ms a dab of ${Math.round(touched / dabs)} touched`,
      value: replayMs,
      unit: 'ms',
      floor: { what: 'writing as many places', value: floor },
      target: { text: '≤ 150', met: replayMs <= 150 },
    },
    {
      key: 'strip_ms',
      what: 'the strip, drawn anew',
      value: stripMs,
      unit: 'ms',
      floor: { what: 'a replay of the same brush', value: replayMs },
      target: { text: '≤ 300', met: stripMs <= 300 },
    },
    {
      key: 'body_5m_mb',
      what: `memory of a body of ${(triangles / 1e6).toFixed(1)} M triangles, ready to be sculpted, without undo`,
      value: bytes / 2 ** 20,
      unit: 'MB',
      floor: { what: 'its places and triangles alone', value: (large.vertexCount * 12 + triangles * 12) / 2 ** 20 },
      target: { text: '≤ 400', met: bytes / 2 ** 20 <= 400 },
    },
  ];
}
