/** What steps are called, and the groups they are offered in. */
import type { StepKind } from '#core/settings';

export const STEP_LABELS: Record<StepKind, string> = {
  crop: 'Crop',
  straighten: 'Straighten',
  perspective: 'Perspective',
  flip: 'Flip',
  resize: 'Resize',
  mix: 'Grey mix',
  levels: 'Levels',
  curve: 'Tone curve',
  invert: 'Invert',
  threshold: 'Threshold',
  blur: 'Blur',
  sharpen: 'Sharpen',
  despeckle: 'Despeckle',
  background: 'Remove background',
  even: 'Even out light',
  pickOut: 'Pick out a thing',
  shading: 'Heights from shading',
  deband: 'De-band',
  noise: 'Noise',
  feather: 'Feather',
  symmetry: 'Symmetry',
  repeat: 'Repeat',
  seamless: 'Make seamless',
  terrace: 'Terrace',
  bevel: 'Bevel',
  combine: 'Combine',
  pad: 'Pad and centre',
  cut: 'Cut out',
  retouch: 'Retouch',
};

export const STEP_GROUPS: readonly { label: string; kinds: readonly StepKind[] }[] = [
  { label: 'Tones', kinds: ['levels', 'curve', 'invert', 'threshold', 'mix', 'shading', 'terrace'] },
  { label: 'Clean', kinds: ['background', 'pickOut', 'even', 'despeckle', 'deband', 'retouch'] },
  { label: 'Grain', kinds: ['blur', 'sharpen', 'noise'] },
  { label: 'Shape', kinds: ['crop', 'straighten', 'perspective', 'flip', 'pad', 'feather', 'resize'] },
  { label: 'Build', kinds: ['bevel', 'combine', 'symmetry', 'repeat', 'seamless'] },
];
