/** The brushes that come with the program: the four that shape a slab, and the read-only base of the rack. */
import { newBrush, type Brush } from '#core/settings';

type Change = { form?: Partial<Brush['form']>; touch?: Partial<Brush['touch']>; stroke?: Partial<Brush['stroke']> };

function preset(id: string, name: string, notes: string, change: Change): Brush {
  const brush = newBrush(`b0000000-0000-4000-8000-0000000000${id}`, name, 'Mold Stamp');
  return {
    ...brush,
    form: { ...brush.form, ...change.form },
    touch: { ...brush.touch, overlaps: 'add', ...change.touch },
    stroke: { ...brush.stroke, ...change.stroke },
    card: { ...brush.card, notes, tags: ['base'] },
  };
}

const NODES = newBrush('b0000000-0000-4000-8000-000000000000', '-').touch.falloff.nodes;
const falloff = (kind: Brush['touch']['falloff']['kind'], hold = 0.6): Brush['touch']['falloff'] => ({
  kind,
  hold,
  nodes: [...NODES],
});

/**
 * Brushes of the slab bench, in the order of their keys. They work straight up and down, so that what they leave
 * can be cast without undercut.
 */
export const SLAB_BRUSHES: readonly Brush[] = [
  preset('01', 'Lift', 'Raises the clay along the stroke.', {
    touch: { action: 'lift', strength: 25, falloff: falloff('bell') },
    stroke: { size: 0.16, spacing: 8, mapping: 'view' },
  }),
  preset('06', 'Build', 'Fills hollows first and builds up in flat layers.', {
    form: { depth: 40 },
    touch: { action: 'build', strength: 45, falloff: falloff('plateau', 0.5), reachDepth: 2 },
    stroke: { size: 0.16, spacing: 10, mapping: 'view' },
  }),
  preset('02', 'Crease', 'Cuts a sharp line and draws the clay together.', {
    form: { depth: 60 },
    touch: { action: 'crease', strength: 30, pinch: 25, footing: 60, falloff: falloff('needle') },
    stroke: { size: 0.09, spacing: 6, mapping: 'view' },
  }),
  preset('07', 'Inflate', 'Swells the clay out along its own faces.', {
    form: { depth: 60 },
    touch: { action: 'inflate', strength: 25, falloff: falloff('bell') },
    stroke: { size: 0.14, spacing: 8, mapping: 'view' },
  }),
  preset('03', 'Smooth', 'Evens the clay out.', {
    touch: { action: 'smooth', strength: 50, falloff: falloff('bell') },
    stroke: { size: 0.16, spacing: 12, mapping: 'view' },
  }),
  preset('08', 'Flatten', 'Levels the clay to its own mean height.', {
    touch: { action: 'flatten', strength: 40, falloff: falloff('plateau', 0.6), reachDepth: 2 },
    stroke: { size: 0.2, spacing: 10, mapping: 'view' },
  }),
  preset('04', 'Move', 'Carries the clay with the pointer.', {
    touch: { action: 'move', falloff: falloff('bell'), reachDepth: 4 },
    stroke: { size: 0.3, spacing: 10, mapping: 'view' },
  }),
  preset('09', 'Mask', 'Paints over what is to stay as it is.', {
    touch: { action: 'mask', strength: 100, overlaps: 'even', falloff: falloff('plateau', 0.8), reachDepth: 4 },
    stroke: { size: 0.16, spacing: 8, mapping: 'view' },
  }),
];

/** What a new brush of the rack is copied from. */
export const BASE_BRUSHES: readonly Brush[] = [
  preset('11', 'Soft round', 'A plain soft lift along the stroke.', {
    touch: { strength: 25, falloff: falloff('bell') },
    stroke: { size: 0.16, spacing: 8 },
  }),
  preset('12', 'Plain press', 'One stamp of fixed size, slid into place before release.', {
    touch: { falloff: falloff('dome'), overlaps: 'even' },
    stroke: { type: 'press', size: 0.3 },
  }),
  preset('13', 'Plain grow', 'Press at the centre, drag for size and turn.', {
    touch: { falloff: falloff('dome'), overlaps: 'even' },
    stroke: { type: 'grow', size: 0.3 },
  }),
  preset('14', 'Sharp line', 'A cut that draws the clay together.', {
    form: { depth: 60 },
    touch: { action: 'crease', strength: 35, pinch: 25, footing: 60, falloff: falloff('needle') },
    stroke: { size: 0.08, spacing: 6 },
  }),
  preset('15', 'Even out', 'Smooths along the stroke.', {
    touch: { action: 'smooth', strength: 50, falloff: falloff('bell') },
    stroke: { size: 0.2, spacing: 12 },
  }),
];

/** The base brush that a fresh cast is made into. */
export const STAMP_BASE = BASE_BRUSHES[1];
