/** What the choices of a brush are called, and what each does. */
import type { Action, Brush, Direction, Mapping, StrokeType } from '#core/settings';

export interface Choice<T extends string> {
  value: T;
  label: string;
  help: string;
}

export const STROKE_TYPE_CHOICES: readonly Choice<StrokeType>[] = [
  { value: 'trail', label: 'Trail', help: 'Dabs along the path at the spacing' },
  { value: 'linger', label: 'Linger', help: 'As Trail, and goes on laying down while the pointer rests' },
  { value: 'ruler', label: 'Ruler', help: 'A straight run from press to release; Shift keeps to steps of 15°' },
  { value: 'path', label: 'Path', help: 'A row along a curve: click its nodes, drag them, Enter keeps it' },
  { value: 'press', label: 'Press', help: 'One stamp of fixed size, slid into place before release' },
  { value: 'grow', label: 'Grow', help: 'Press at the centre, drag for size and turn' },
  { value: 'pull', label: 'Pull', help: 'Press at the centre at a fixed size, drag for height' },
];

export const MAPPING_CHOICES: readonly Choice<Mapping>[] = [
  { value: 'surface', label: 'On surface', help: 'Laid on along the surface’s own normal' },
  { value: 'view', label: 'From view', help: 'Projected along the view' },
  { value: 'wrapped', label: 'Wrapped', help: 'Repeats over the body and stays where it is, whatever the dab does' },
  { value: 'stencil', label: 'Stencil', help: 'A sheet over the view that is painted through' },
  { value: 'shuffled', label: 'Shuffled', help: 'On the surface, each dab reading another place of the alpha' },
];

export const CLAY_CHOICES: readonly Choice<Action>[] = [
  { value: 'lift', label: 'Lift', help: 'Raises the form; the key of Dig held lowers it' },
  { value: 'build', label: 'Build', help: 'Fills hollows first and builds up in flat layers' },
  { value: 'crease', label: 'Crease', help: 'Cuts a line and draws the clay together' },
  { value: 'inflate', label: 'Inflate', help: 'Swells the clay out along its own faces' },
  { value: 'smooth', label: 'Smooth', help: 'Evens the clay out' },
  { value: 'flatten', label: 'Flatten', help: 'Levels the clay to its own mean height' },
  { value: 'move', label: 'Move', help: 'Carries the clay with the pointer' },
  { value: 'mask', label: 'Mask', help: 'Paints over what is to stay as it is' },
  { value: 'insert', label: 'Insert', help: 'Sets parts down on the surface' },
];

export const PAINT_CHOICES: readonly Choice<Action>[] = [
  { value: 'paint', label: 'Paint', help: 'Lays colour on the texture; the key of Dig held lays the second one' },
  { value: 'smudge', label: 'Smudge', help: 'Drags the colours along' },
  { value: 'erase', label: 'Erase', help: 'Takes paint off the layer' },
  { value: 'fill', label: 'Fill', help: 'A press fills the layer, an island, or what is of one colour' },
];

export const ACTION_CHOICES: readonly Choice<Action>[] = [...CLAY_CHOICES, ...PAINT_CHOICES];

export const COVER_CHOICES: readonly Choice<Brush['colour']['cover']>[] = [
  { value: 'bright', label: 'Bright', help: 'White covers, black stays clear' },
  { value: 'dark', label: 'Dark', help: 'Black covers, white stays clear' },
  { value: 'clear', label: 'Own', help: 'The picture’s own transparency says what covers' },
];

export const COLOUR_DRIFT_CHOICES: readonly Choice<Brush['colour']['per']>[] = [
  { value: 'dab', label: 'Dab', help: 'Every dab has another colour' },
  { value: 'stroke', label: 'Stroke', help: 'Every stroke has another colour, which it keeps' },
  { value: 'along', label: 'Along', help: 'The colour changes smoothly along the stroke' },
];

export const MIXING_CHOICES: readonly Choice<Brush['colour']['mixing']>[] = [
  { value: 'light', label: 'Light', help: 'Colours mix as lights do' },
  { value: 'pigment', label: 'Pigment', help: 'Colours mix as paints do: blue and yellow make green' },
];

export const FILL_CHOICES: readonly Choice<Brush['colour']['fills']>[] = [
  { value: 'all', label: 'All', help: 'All of the layer, but what is masked' },
  { value: 'part', label: 'Part', help: 'All that hangs together with the point under the pointer' },
  { value: 'island', label: 'Island', help: 'The island of the texture under the pointer' },
  { value: 'colour', label: 'Colour', help: 'What is of the same colour and touches, over seams too' },
];

export const DIRECTION_CHOICES: readonly Choice<Direction>[] = [
  { value: 'dab', label: 'Dab', help: 'Along the dab’s own normal, straight out even past an edge' },
  { value: 'own', label: 'Own', help: 'Each point along its own normal' },
  { value: 'view', label: 'View', help: 'Towards the eye' },
  { value: 'x', label: 'X', help: 'Along the body’s x axis' },
  { value: 'y', label: 'Y', help: 'Along the body’s y axis, upwards' },
  { value: 'z', label: 'Z', help: 'Along the body’s z axis' },
];

export const TURN_CHOICES: readonly Choice<Brush['stroke']['turnFrom']>[] = [
  { value: 'fixed', label: 'Fixed', help: 'Upright as seen' },
  { value: 'stroke', label: 'Stroke', help: 'Turns with the stroke’s direction' },
  { value: 'lean', label: 'Lean', help: 'Turns with the way the pen leans' },
  { value: 'random', label: 'Random', help: 'Every dab is turned by chance' },
];

export const TAKE_CHOICES: readonly Choice<Brush['touch']['takes']>[] = [
  {
    value: 'auto',
    label: 'Auto',
    help: 'Press, Grow and Pull take only what hangs together under them, other strokes everything in reach',
  },
  {
    value: 'connected',
    label: 'Joined',
    help: 'Only what hangs together with the point under the pointer, within the dab',
  },
  { value: 'all', label: 'All', help: 'Everything in reach, also across a gap' },
];

export const OVERLAP_CHOICES: readonly Choice<Brush['touch']['overlaps']>[] = [
  { value: 'even', label: 'Even', help: 'Within a stroke the strongest dab counts: no peaks where dabs cross' },
  { value: 'add', label: 'Add up', help: 'Every dab adds' },
];

/** Strokes of these types run along a line, so that spacing means something. */
export function runsAlong(type: StrokeType): boolean {
  return type === 'trail' || type === 'linger' || type === 'ruler' || type === 'path';
}

export function labelOf<T extends string>(choices: readonly Choice<T>[], value: T): string {
  return choices.find((c) => c.value === value)?.label ?? value;
}
