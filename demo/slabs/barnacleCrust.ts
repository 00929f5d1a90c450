/** Barnacle crust: a crowd of ribbed cones with open tops, packed into a round patch, on a slightly uneven ground. */
import { seeded, type Random } from '#core/random';
import { draw, hand, tool, type Hand, type Point } from '../hand';

export interface Barnacle {
  x: number;
  y: number;
  radius: number;
}

/** The one that is cast alone; it stands a little apart. */
export const LONE: Barnacle = { x: 0.79, y: -0.79, radius: 0.13 };

/** Middle of the patch and the side of the frame that takes it in with room to spare. */
export const PATCH = { x: -0.06, y: 0.06, side: 1.52 };

export function barnacleCrust(cells: number): Hand {
  const h = hand(cells);
  const random = seeded(1907);
  for (const b of [...crowd(random), LONE]) barnacle(h, b, random);
  return h;
}

/** Barnacles from large to small, each where it overlaps its neighbours by little. */
function crowd(random: Random): Barnacle[] {
  const out: Barnacle[] = [];
  for (let tries = 0; tries < 6000 && out.length < 120; tries++) {
    const radius = 0.15 - 0.108 * Math.min(1, tries / 2600) * (0.7 + 0.3 * random());
    const angle = random() * 2 * Math.PI;
    const away = Math.sqrt(random()) * (0.68 - radius);
    const b = { x: PATCH.x + away * Math.cos(angle), y: PATCH.y + away * Math.sin(angle), radius };
    const clear = out.every((o) => Math.hypot(o.x - b.x, o.y - b.y) > 0.8 * (o.radius + b.radius));
    if (clear) out.push(b);
  }
  return out;
}

function barnacle(h: Hand, b: Barnacle, random: Random): void {
  const { x, y, radius: r } = b;
  const open = 0.24 + 0.12 * random();
  const wall = tool({
    form: { depth: 350 + 130 * random() },
    touch: {
      overlaps: 'even',
      footing: 0,
      falloff: {
        kind: 'own',
        hold: 0,
        nodes: [
          { x: 0, y: 0.34, corner: false },
          { x: open * 0.7, y: 0.38, corner: false },
          { x: open, y: 0.97, corner: true },
          { x: open + 0.06, y: 1, corner: false },
          { x: 0.62, y: 0.52, corner: false },
          { x: 0.86, y: 0.17, corner: false },
          { x: 1, y: 0, corner: false },
        ],
      },
    },
    stroke: { type: 'press', size: r },
  });
  draw(h, wall, [[x, y]]);

  const ribs = 9 + Math.floor(random() * 6);
  const first = random() * 2 * Math.PI;
  for (let i = 0; i < ribs; i++) {
    const angle = first + ((i + 0.35 * (random() - 0.5)) / ribs) * 2 * Math.PI;
    const bend = 0.12 * (random() - 0.5);
    const groove = tool({
      form: { depth: 55 + 40 * random() },
      touch: { action: 'crease', strength: 60, pinch: 6, falloff: { kind: 'bell', hold: 0, nodes: [] } },
      stroke: { size: r * (0.1 + 0.05 * random()), spacing: 18 },
    });
    const at = (share: number, lean: number): Point => [
      x + share * r * Math.cos(angle + lean),
      y + share * r * Math.sin(angle + lean),
    ];
    draw(h, groove, [at(open + 0.04, 0), at(0.62, bend), at(0.93, bend * 1.5)]);
  }

  // The beak: a slit across the opening between two low lips.
  const slit = random() * Math.PI;
  const half = open * 0.55 * r;
  const lips = tool({
    form: { depth: 90 },
    touch: { action: 'crease', strength: 60, pinch: 10, falloff: { kind: 'cone', hold: 0, nodes: [] } },
    stroke: { size: r * 0.1, spacing: 15 },
  });
  draw(h, lips, [
    [x - half * Math.cos(slit), y - half * Math.sin(slit)],
    [x + half * Math.cos(slit), y + half * Math.sin(slit)],
  ]);
}
