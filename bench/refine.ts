/** refine_us_per_vertex and refine_release_ms: what it costs to make clay finer where a stroke went. */
import { resolveBrush } from '#core/brush';
import { body, buildMesh } from '#core/mesh';
import { finish, surface } from '#core/sculpt';
import {
  beginStroke,
  endStroke,
  extendStroke,
  refineUnderLast,
  session,
  type Session,
  type Under,
} from '#core/session';
import { newBrush } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { time, type Figure } from './measure';

/** A wavy line of 45 dabs, and a ball as dense as asked. */
function stroked(density: number, edge: number): { s: Session; under: Under } {
  const s = session(finish(surface(buildMesh(body('ball', density), { unfinished: true }))), { replay: true });
  const brush = newBrush('b0000000-0000-4000-8000-0000000000fd', 'Bench');
  brush.stroke.size = 0.06;
  beginStroke(s, {
    brush: resolveBrush(brush, null),
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(
    s,
    Array.from({ length: 40 }, (_, i) => ({
      origin: [-0.4 + (0.8 * i) / 39, 0.2 * Math.sin(i / 5), 4],
      direction: [0, 0, -1],
    })),
  );
  return { s, under: endStroke(s, { edge, most: 8e6 }).under! };
}

/** The middle of three releases after one that warms up, each on a body of its own, and how many vertices one adds. */
function released(density: number, edge: number): { ms: number; more: number; triangles: number } {
  const runs = Array.from({ length: 4 }, () => {
    const { s, under } = stroked(density, edge);
    const { vertexCount, triangleCount } = s.surface.mesh;
    const began = performance.now();
    refineUnderLast(s, under);
    return { ms: performance.now() - began, more: s.surface.mesh.vertexCount - vertexCount, triangles: triangleCount };
  });
  return runs.slice(1).sort((a, b) => a.ms - b.ms)[1];
}

export function refineFigures(): Figure[] {
  const few = released(72, 0.004);
  const many = released(300, 0.0024);
  const [grown, onFew, more, onMany] = [few.more, few.ms, many.more, many.ms];
  const build = time(3, 0, () => finish(surface(buildMesh(body('ball', 300), { unfinished: true }))));
  return [
    {
      key: 'refine_release_ms',
      what: `a stroke of 45 dabs made finer on ${Math.round(few.triangles / 1000)} k faces, ${Math.round(grown / 1000)} k vertices more, ${((onFew * 1000) / grown).toFixed(0)} µs each, all in`,
      value: onFew,
      unit: 'ms',
      floor: { what: 'the body and its stroke, made anew', value: time(3, 1, () => stroked(72, 0.004)) },
      target: { text: '≤ 1000', met: onFew <= 1000 },
    },
    {
      key: 'refine_us_per_vertex',
      what: `the same on ${(many.triangles / 1e6).toFixed(1)} M faces, ${Math.round(more / 1000)} k vertices more, the rest of the body left alone`,
      value: ((onMany - build) * 1000) / more,
      unit: 'µs',
      floor: { what: `laying out the body anew, ${build.toFixed(0)} ms, a new vertex`, value: (build * 1000) / more },
      target: { text: '≤ 100', met: ((onMany - build) * 1000) / more <= 100 },
    },
  ];
}
