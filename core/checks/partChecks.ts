/** Every check of a part, from what was measured of it; those that found something come first. */
import type { PartReport } from '#core/part';
import { counted, spaced } from '#core/words';
import type { Check } from './check';

export interface PartUse {
  /** Units of the part's mesh from vertex to vertex of the body that it is to be merged with; null without one. */
  spacing: number | null;
  /** Says a length in units of the part's mesh as it is in the world. */
  real: (length: number) => string;
}

/** Heavier parts are slow where many are set down. */
const MOST_FACES = 5000;
/** A base is at least so much of what the part covers. */
const LEAST_RESTING = 0.02;
/** Share of its height that it may float or be sunk by, without being asked to. */
const MOST_OVER = 0.01;
const MOST_TILT_DEG = 0.5;
/** A wall is merged whole when it is this many spacings thick. */
const SPACINGS = 1.5;

export function partChecks(report: PartReport, use: PartUse): Check[] {
  const checks = [
    weight(report),
    open(report),
    nonManifold(report),
    inward(report),
    crossing(report),
    resting(report),
    offAxis(report),
    ...(use.spacing === null ? [] : [thin(report, use.spacing, use.real)]),
  ];
  return [...checks.filter((c) => !c.ok), ...checks.filter((c) => c.ok)];
}

function weight({ triangles }: PartReport): Check {
  const ok = triangles <= MOST_FACES;
  return {
    name: 'weight',
    ok,
    value: triangles,
    limit: MOST_FACES,
    unit: 'faces',
    sentence: ok
      ? `${spaced(triangles)} faces: light enough to set down by the hundred`
      : `${spaced(triangles)} faces are many for a part; ${spaced(MOST_FACES)} or fewer stay quick in rows.`,
  };
}

function open({ holes }: PartReport): Check {
  const ok = holes.count === 0;
  return {
    name: 'open',
    ok,
    value: holes.edges,
    limit: 0,
    unit: 'edges',
    sentence: ok
      ? 'Closed all round'
      : `${counted(holes.count, 'hole or open rim', 'holes or open rims')}, ${counted(holes.edges, 'edge')} round: it can’t be merged into a body.`,
  };
}

function nonManifold({ nonManifold: edges }: PartReport): Check {
  const ok = edges === 0;
  return {
    name: 'non-manifold',
    ok,
    value: edges,
    limit: 0,
    unit: 'edges',
    sentence: ok
      ? 'No edge is shared by three faces'
      : `${counted(edges, 'edge is', 'edges are')} shared by three faces or more: it can’t be merged into a body.`,
  };
}

function inward({ inward: faces }: PartReport): Check {
  const ok = faces === 0;
  return {
    name: 'inward',
    ok,
    value: faces,
    limit: 0,
    unit: 'faces',
    sentence: ok ? 'All faces look outward' : `${counted(faces, 'face is', 'faces are')} inside out.`,
  };
}

function crossing({ crossings }: PartReport): Check {
  const ok = crossings === 0;
  return {
    name: 'crossing',
    ok,
    value: crossings,
    limit: 0,
    unit: 'pairs',
    sentence: ok
      ? 'No face goes through another'
      : `${counted(crossings, 'pair of faces crosses', 'pairs of faces cross')}: more faces, or even ones, keep them apart.`,
  };
}

function resting({ resting: share, over }: PartReport): Check {
  const floats = Math.abs(over) > MOST_OVER;
  const ok = share >= LEAST_RESTING && !floats;
  return {
    name: 'resting',
    ok,
    value: share * 100,
    limit: LEAST_RESTING * 100,
    unit: '%',
    sentence: ok
      ? `Its base spans ${Math.round(share * 100)} % of its footprint`
      : floats
        ? `Its lowest point is ${Math.round(Math.abs(over) * 100)} % of its height ${over > 0 ? 'above' : 'below'} the rest point.`
        : `Its base spans only ${(share * 100).toFixed(1)} % of its footprint.`,
  };
}

function offAxis({ tilt }: PartReport): Check {
  const ok = tilt <= MOST_TILT_DEG;
  return {
    name: 'off-axis',
    ok,
    value: tilt,
    limit: MOST_TILT_DEG,
    unit: '°',
    sentence: ok ? 'It stands straight' : `It leans ${tilt.toFixed(1)}° off its flattest side.`,
  };
}

function thin({ thickness }: PartReport, spacing: number, real: (length: number) => string): Check {
  const ok = thickness >= spacing * SPACINGS;
  return {
    name: 'thin',
    ok,
    value: thickness,
    limit: spacing * SPACINGS,
    unit: 'body',
    sentence: ok
      ? `Its thinnest walls, ${real(thickness)}, can be merged into the body`
      : `Its thinnest walls are ${real(thickness)}, the body has a vertex every ${real(spacing)}: sculpted on or smoothed, they would be lost.`,
  };
}
