import { ACTIONS, DIRECTIONS, MAPPINGS, OVERLAPS, STROKE_TYPES, TURN_SOURCES } from '#core/settings';
import {
  ACTION_CHOICES,
  DIRECTION_CHOICES,
  labelOf,
  MAPPING_CHOICES,
  OVERLAP_CHOICES,
  runsAlong,
  STROKE_TYPE_CHOICES,
  TURN_CHOICES,
} from './labels';

test.each([
  ['stroke types', STROKE_TYPE_CHOICES, STROKE_TYPES],
  ['mappings', MAPPING_CHOICES, MAPPINGS],
  ['actions', ACTION_CHOICES, ACTIONS],
  ['directions', DIRECTION_CHOICES, DIRECTIONS],
  ['overlaps', OVERLAP_CHOICES, OVERLAPS],
  ['turns', TURN_CHOICES, TURN_SOURCES],
] as const)(
  'all %s that a brush can have can be chosen, each once, with a word and a sentence of its own',
  (_, choices, values) => {
    expect(choices.map((c) => c.value).sort()).toEqual([...values].sort());
    expect(new Set(choices.map((c) => c.label)).size).toBe(choices.length);
    expect(new Set(choices.map((c) => c.help)).size).toBe(choices.length);
    for (const { value } of choices)
      expect(labelOf(choices as readonly { value: string; label: string; help: string }[], value)).not.toBe(value);
  },
);

test('types that lay a single stamp don’t run along', () => {
  expect(STROKE_TYPES.filter((type) => !runsAlong(type))).toEqual(['press', 'grow', 'pull']);
});
