/** Limpet rings: one broad shell with its tip off the middle, growth rings and fine ribs. */
import { seeded } from '#core/random';
import { arc, draw, hand, tool, type Hand, type Point } from '../hand';

export function limpetRings(cells: number): Hand {
  const h = hand(cells);
  const random = seeded(86);
  const radius = 0.72;
  const tip: Point = [0.07, 0.05];

  draw(
    h,
    tool({
      form: { depth: 150 },
      touch: {
        overlaps: 'even',
        footing: 0,
        falloff: {
          kind: 'own',
          hold: 0,
          nodes: [
            { x: 0, y: 1, corner: false },
            { x: 0.12, y: 0.93, corner: false },
            { x: 0.55, y: 0.5, corner: false },
            { x: 0.9, y: 0.14, corner: false },
            { x: 0.985, y: 0.05, corner: true },
            { x: 1, y: 0, corner: true },
          ],
        },
      },
      stroke: { type: 'press', size: radius },
    }),
    [[0, 0]],
  );

  // The tip leans: the middle is carried to one side.
  draw(
    h,
    tool({
      touch: { action: 'move', reachDepth: 4, falloff: { kind: 'bell', hold: 0, nodes: [] } },
      stroke: { size: 0.62 },
    }),
    [[0, 0], tip],
  );

  const ribs = 46;
  for (let i = 0; i < ribs; i++) {
    const angle = ((i + 0.4 * (random() - 0.5)) / ribs) * 2 * Math.PI;
    const rib = tool({
      form: { depth: 28 + 22 * random() },
      touch: { overlaps: 'even', strength: 100, footing: 0, falloff: { kind: 'bell', hold: 0, nodes: [] } },
      stroke: { size: 0.03 + 0.012 * random(), spacing: 12 },
    });
    const end = radius * (0.93 + 0.05 * random());
    const at = (share: number): Point => [
      tip[0] * (1 - share) + Math.cos(angle) * end * share,
      tip[1] * (1 - share) + Math.sin(angle) * end * share,
    ];
    draw(h, rib, [at(0.16 + 0.12 * random()), at(0.6), at(1)]);
  }

  for (let ring = 0; ring < 15; ring++) {
    const share = 0.13 + (ring / 15) * 0.83 + 0.02 * (random() - 0.5);
    const groove = tool({
      form: { depth: 40 + 45 * random() },
      touch: { action: 'crease', strength: 50, pinch: 8, falloff: { kind: 'bell', hold: 0, nodes: [] } },
      stroke: { size: 0.012 + 0.016 * random(), spacing: 14 },
    });
    draw(
      h,
      groove,
      arc(tip[0] * (1 - share), tip[1] * (1 - share), radius * share, () => 0.012 * (random() - 0.5)),
    );
  }
  draw(
    h,
    tool({
      touch: { action: 'smooth', strength: 40, falloff: { kind: 'bell', hold: 0, nodes: [] } },
      stroke: { size: 0.1 },
    }),
    [tip, [tip[0] + 0.01, tip[1]]],
  );
  return h;
}
