/** cast_ns_per_pixel and roundtrip_psnr_db. */
import { castHeights, castTones } from '#core/cast';
import { buildMesh, plane, positionsIn, positionsOut, type Mesh } from '#core/mesh';
import { fromUint16, psnr, pyramid, toUint16 } from '#core/picture';
import { resolveBrush } from '#core/brush';
import { newBrush } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { time, type Figure } from './measure';

const SIDE = 1.8;
const frame = { x: 0, y: 0, turn: 0, side: SIDE };

export function castFigures(): Figure[] {
  const slab = shaped(1024);
  const size = 4096;
  const ms = time(3, 1, () => castHeights(slab, { frame, size, samples: 1 }));
  const out = new Float32Array(size * size);
  const floor = time(3, 1, () => {
    for (let i = 0; i < out.length; i++) {
      const h = i * 1e-9;
      if (h > out[i] - 1) out[i] = h;
    }
  });
  const ns = (ms * 1e6) / (size * size);

  const { trip, quantised } = roundTrip(slab);
  return [
    {
      key: 'cast_ns_per_pixel',
      what: '2 M triangles to 4096²',
      value: ns,
      unit: 'ns',
      floor: { what: 'comparing and writing every pixel once', value: (floor * 1e6) / (size * size) },
      target: { text: '≤ 45', met: ns <= 45 },
    },
    {
      key: 'roundtrip_psnr_db',
      what: 'cast a slab, stamp the alpha once on a flat body at 100 %, cast that, compare',
      value: trip,
      unit: 'dB',
      floor: { what: 'what 16 bits alone leave', value: quantised },
      target: { text: '≥ 50', met: trip >= 50 },
    },
  ];
}

function shaped(cells: number): Mesh {
  const mesh = buildMesh(plane(cells, 2));
  const positions = positionsOut(mesh);
  for (let i = 0; i < positions.length; i += 3) {
    const x = positions[i];
    const y = positions[i + 1];
    const away = Math.max(0, 0.75 - Math.hypot(x, y));
    positions[i + 2] = away * (0.2 + 0.06 * Math.cos(31 * x) * Math.sin(27 * y) + 0.02 * Math.sin(90 * x + 70 * y));
  }
  positionsIn(mesh, positions);
  return mesh;
}

function roundTrip(slab: Mesh): { trip: number; quantised: number } {
  const size = 1024;
  const tones = castTones(castHeights(slab, { frame, size, samples: 1 }), SIDE, null, null);
  const kept = fromUint16(toUint16(tones.picture), size);
  const body = buildMesh(plane(1024, 2));
  const s = session(surface(body), { replay: false });
  const brush = newBrush('b0000000-0000-4000-8000-0000000000fe', 'Round trip');
  brush.form.footprint = 'square';
  brush.touch.falloff.kind = 'full';
  brush.stroke.type = 'press';
  brush.stroke.size = SIDE / 2;
  beginStroke(s, {
    brush: resolveBrush(brush, { pyramid: pyramid(kept), relief: tones.relief, vector: null }),
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(s, [{ origin: [0, 0, 3], direction: [0, 0, -1] }]);
  endStroke(s);
  const again = castTones(castHeights(body, { frame, size, samples: 1 }), SIDE, tones.floor, tones.crown);
  return { trip: psnr(tones.picture, again.picture), quantised: psnr(tones.picture, kept) };
}
