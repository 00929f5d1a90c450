/** What the patterns are called. */
import type { PatternForm } from '#core/settings';

export const FORM_LABELS: Record<PatternForm, string> = {
  soft: 'Soft noise',
  ridges: 'Ridges',
  cells: 'Cells',
  scales: 'Scales',
  cracks: 'Cracks',
  weave: 'Weave',
  fibres: 'Fibres',
  pebbles: 'Pebbles',
  ripple: 'Ripple',
  dots: 'Dots',
  wisps: 'Wisps',
};
