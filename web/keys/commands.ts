/**
 * Everything a key can do, and the key that does it until another is chosen. A command means one thing on every bench,
 * so a key does too.
 */

export const GROUPS = [
  'Everywhere',
  'Brush',
  'Looking',
  'Body and slab',
  'Painting',
  'Pictures',
  'Parts and scans',
] as const;
export type Group = (typeof GROUPS)[number];

export interface Command {
  group: Group;
  what: string;
  /** As `pressed` spells them; the first one is shown. */
  keys: readonly string[];
  /** It acts while the key is down. */
  held?: true;
  /** Its key stays: hands know it from everywhere. */
  fixed?: true;
  /** Another command’s line tells of it. */
  unlisted?: true;
}

const strength = (digit: number): Command => ({
  group: 'Brush',
  what: 'Strength, or flow of paint, 10 %; 2 for 20 %, … 0 for 100 %; two quickly are exact: 3 5, 0 5',
  keys: [String(digit)],
  fixed: true,
  ...(digit === 1 ? {} : { unlisted: true as const }),
});
const onBelt = (place: number): Command => ({
  group: 'Brush',
  what: `Brush ${place} of the belt`,
  keys: [`Shift+${place}`],
});

const table = {
  help: { group: 'Everywhere', what: 'The keys of this place', keys: ['?'] },
  cancel: { group: 'Everywhere', what: 'Cancel what is in progress; choose none', keys: ['Esc'], fixed: true },
  confirm: { group: 'Everywhere', what: 'Finish the path', keys: ['Enter'], fixed: true },
  back: { group: 'Everywhere', what: 'Remove the path’s last node', keys: ['Backspace'], fixed: true },
  save: { group: 'Everywhere', what: 'Save', keys: ['Ctrl+S'] },
  undo: { group: 'Everywhere', what: 'Undo', keys: ['Ctrl+Z'] },
  redo: { group: 'Everywhere', what: 'Redo', keys: ['Ctrl+Shift+Z', 'Ctrl+Y'] },
  remove: { group: 'Everywhere', what: 'Delete what is chosen', keys: ['Delete'] },
  all: { group: 'Everywhere', what: 'Choose all', keys: ['Ctrl+A'] },
  copy: { group: 'Everywhere', what: 'Copy what is chosen', keys: ['Ctrl+D'] },
  rename: { group: 'Everywhere', what: 'Rename what is chosen', keys: ['F2'] },
  rightLeaf: { group: 'Everywhere', what: 'The right leaf takes the whole width, and back', keys: ['W'] },
  leftLeaf: { group: 'Everywhere', what: 'The left leaf takes the whole width, and back', keys: ['Shift+W'] },
  left: { group: 'Everywhere', what: 'To the left', keys: ['ArrowLeft'], fixed: true },
  right: { group: 'Everywhere', what: 'To the right', keys: ['ArrowRight'], fixed: true },
  up: { group: 'Everywhere', what: 'Up', keys: ['ArrowUp'], fixed: true },
  down: { group: 'Everywhere', what: 'Down', keys: ['ArrowDown'], fixed: true },

  strength0: strength(0),
  strength1: strength(1),
  strength2: strength(2),
  strength3: strength(3),
  strength4: strength(4),
  strength5: strength(5),
  strength6: strength(6),
  strength7: strength(7),
  strength8: strength(8),
  strength9: strength(9),
  smaller: { group: 'Brush', what: 'Smaller: the brush, a patch or the chosen pieces', keys: ['['] },
  larger: { group: 'Brush', what: 'Larger: the brush, a patch or the chosen pieces', keys: [']'] },
  turnLeft: { group: 'Brush', what: 'Turn left: the brush, what is chosen, or the stencil', keys: [','] },
  turnRight: { group: 'Brush', what: 'Turn right: the brush, what is chosen, or the stencil', keys: ['.'] },
  adjust: {
    group: 'Brush',
    what: 'Held: drag left and right for size, up and down for strength',
    keys: ['A'],
    held: true,
  },
  dig: { group: 'Brush', what: 'Held: dig instead of lifting; the second colour', keys: ['D'], held: true },
  smooth: { group: 'Brush', what: 'Held: smooth, at this size', keys: ['S'], held: true },
  nextBrush: { group: 'Brush', what: 'The next brush on the belt', keys: ['Ctrl+ArrowRight'] },
  lastBrush: { group: 'Brush', what: 'The brush before on the belt', keys: ['Ctrl+ArrowLeft'] },
  nextBelt: { group: 'Brush', what: 'The next belt', keys: ['Ctrl+ArrowDown'] },
  lastBelt: { group: 'Brush', what: 'The belt before', keys: ['Ctrl+ArrowUp'] },
  belt1: onBelt(1),
  belt2: onBelt(2),
  belt3: onBelt(3),
  belt4: onBelt(4),
  belt5: onBelt(5),
  belt6: onBelt(6),
  belt7: onBelt(7),
  belt8: onBelt(8),
  pin: { group: 'Brush', what: 'Pin this version to compare with', keys: ['P'] },
  compare: { group: 'Brush', what: 'What it was before, and back', keys: ['B'] },
  settingUndo: { group: 'Brush', what: 'Undo the last change of a setting', keys: ['Ctrl+Alt+Z'] },
  settingRedo: { group: 'Brush', what: 'Redo a change of a setting', keys: ['Ctrl+Alt+Y'] },
  follow: { group: 'Brush', what: 'Strokes follow the brush, or stay as they were drawn', keys: ['Shift+F'] },

  whole: { group: 'Looking', what: 'All of it, from the front', keys: ['H'] },
  fromBack: { group: 'Looking', what: 'From the back', keys: ['Shift+H'] },
  fromLeft: { group: 'Looking', what: 'From the left', keys: ['J'] },
  fromRight: { group: 'Looking', what: 'From the right', keys: ['Shift+J'] },
  fromAbove: { group: 'Looking', what: 'From above', keys: ['K'] },
  fromBelow: { group: 'Looking', what: 'From below', keys: ['Shift+K'] },
  lookAt: { group: 'Looking', what: 'Look at what is chosen, or lies under the pointer', keys: ['F'] },
  move: { group: 'Looking', what: 'Held: a drag anywhere moves the view', keys: ['E'], held: true },
  zoom: { group: 'Looking', what: 'Held: drag up or down to zoom', keys: ['Q'], held: true },
  viewLeft: { group: 'Looking', what: 'Turn the view left', keys: ['Ctrl+['] },
  viewRight: { group: 'Looking', what: 'Turn the view right', keys: ['Ctrl+]'] },
  parallel: { group: 'Looking', what: 'Parallel, or in perspective', keys: ['O'] },
  onePixel: { group: 'Looking', what: 'One pixel to one of the screen', keys: ['Shift+O'] },
  light: { group: 'Looking', what: 'Held: the pointer turns the light', keys: ['L'], held: true },
  settle: {
    group: 'Looking',
    what: 'Held: stamps settle on the guides, and on the line through the last two',
    keys: ['Z'],
    held: true,
  },

  mirrorX: { group: 'Body and slab', what: 'Mirror left and right', keys: ['X'] },
  mirrorY: { group: 'Body and slab', what: 'Mirror up and down', keys: ['Y'] },
  mask: { group: 'Body and slab', what: 'Held: paint a mask; with Dig take it away', keys: ['M'], held: true },
  invert: { group: 'Body and slab', what: 'Invert the mask, or what is picked', keys: ['I'] },
  clearMask: { group: 'Body and slab', what: 'Clear the mask', keys: ['U'] },
  maskRaised: { group: 'Body and slab', what: 'Mask what the last stroke raised', keys: ['Shift+M'] },
  cut: { group: 'Body and slab', what: 'Cut what is masked off as a body of its own', keys: ['Shift+C'] },
  takeHold: { group: 'Body and slab', what: 'Take hold of the frame or of pieces, and let go', keys: ['G'] },
  hide: { group: 'Body and slab', what: 'Hide the chosen pieces', keys: ['Shift+G'] },
  stencil: { group: 'Body and slab', what: 'Held: the pointer moves the stencil', keys: ['N'], held: true },
  stencilSmaller: { group: 'Body and slab', what: 'Stencil: smaller', keys: ['-'] },
  stencilLarger: { group: 'Body and slab', what: 'Stencil: larger', keys: ['='] },

  pickColour: {
    group: 'Painting',
    what: 'Held: a press takes the colour from the surface',
    keys: ['C'],
    held: true,
  },
  swapColours: { group: 'Painting', what: 'Swap the first and the second colour', keys: ['V'] },
  chosenColour: {
    group: 'Painting',
    what: 'The colour that was chosen last, whatever came onto the surface',
    keys: ['Shift+V'],
  },

  repeat: { group: 'Pictures', what: 'Repeat it three by three, and back', keys: ['R'] },
  ring: { group: 'Pictures', what: 'Show and hide the ring', keys: ['Shift+R'] },
  result: { group: 'Pictures', what: 'Show the open step’s result, and back', keys: ['Shift+B'] },
  chooseMarks: { group: 'Pictures', what: 'Click marks to include or exclude them', keys: ['Shift+A'] },
  lasso: { group: 'Pictures', what: 'Lasso: draw round a mark', keys: ['Shift+L'] },
  split: { group: 'Pictures', what: 'Split: draw a line through a mark', keys: ['Shift+X'] },
  join: { group: 'Pictures', what: 'Join the chosen marks (Shift-click chooses)', keys: ['Shift+U'] },

  tray: {
    group: 'Parts and scans',
    what: 'Held: the brush’s parts beside the pointer; the wheel picks one',
    keys: ['T'],
    held: true,
  },
  nextPart: { group: 'Parts and scans', what: 'Pick the next part of the brush', keys: ['PageDown'] },
  lastPart: { group: 'Parts and scans', what: 'Pick the part before', keys: ['PageUp'] },
  seat: { group: 'Parts and scans', what: 'Seat it as it is seen: what faces you points up', keys: ['Shift+S'] },
  restFace: { group: 'Parts and scans', what: 'Pick the face that it rests on', keys: ['Shift+D'] },
  restPlace: { group: 'Parts and scans', what: 'Pick the place under which it rests', keys: ['Shift+E'] },
  snapSeat: { group: 'Parts and scans', what: 'Snap its seat to the nearest axis', keys: ['Shift+I'] },
  tip: { group: 'Parts and scans', what: 'Tip it over by a quarter', keys: ['Shift+T'] },
  patch: {
    group: 'Parts and scans',
    what: 'Lay a patch: press on the scan and drag out its size',
    keys: ['Shift+P'],
  },
  level: { group: 'Parts and scans', what: 'Lay the chosen patch as the surface lies', keys: ['Shift+N'] },
} as const satisfies Record<string, Command>;

export type CommandId = keyof typeof table;
export const COMMANDS: Readonly<Record<CommandId, Command>> = table;
export const COMMAND_IDS = Object.keys(table) as CommandId[];
