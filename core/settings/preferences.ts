/** How one hand likes to work in one browser: looks, units, pen and touch, undo, credit and keys. */
import { z } from 'zod';
import { setting } from './setting';

export const PREFERENCES_VERSION = 1;
export const THEMES = ['system', 'day', 'evening'] as const;
export const LENGTH_UNITS = ['body', 'mm'] as const;
export const FINGERS = ['stroke', 'move'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];
export type FingerUse = (typeof FINGERS)[number];

export const PreferencesSchema = z.object({
  version: z.literal(PREFERENCES_VERSION).default(PREFERENCES_VERSION),
  theme: z.enum(THEMES).default('system'),
  /** What lengths are shown and typed in. Documents keep body units. */
  lengths: z.enum(LENGTH_UNITS).default('body'),
  mmPerUnit: setting({
    label: 'A body unit is',
    unit: 'mm',
    min: 0.1,
    max: 10000,
    step: 0.1,
    fallback: 50,
    scale: 'log',
    help: 'How long a body unit is in the world and in files: the slab is two of them across',
  }),
  /** What one finger does on clay, pictures and bodies. */
  finger: z.enum(FINGERS).default('stroke'),
  /** Once a pen was seen, fingers only move the view. */
  penRules: z.boolean().default(true),
  undoMb: setting({
    label: 'Undo keeps',
    unit: 'MB',
    min: 64,
    max: 8192,
    step: 64,
    fallback: 768,
    scale: 'log',
    help: 'What strokes may keep in memory for undo, each body and slab by itself; beyond it the oldest steps go',
  }),
  /** Put on new brushes, alphas, sources and packs. */
  author: z.string().trim().max(120, 'An author may have at most 120 characters.').default(''),
  /** Put on new packs. */
  licence: z.string().trim().max(300, 'A licence may have at most 300 characters.').default(''),
  /** Keys chosen instead of the usual ones, by command; an empty one takes the command’s key away. */
  keys: z.record(z.string().max(40), z.string().max(40)).default({}),
});
export type Preferences = z.infer<typeof PreferencesSchema>;

export const usualPreferences = (): Preferences => PreferencesSchema.parse({});

/** Reads what was kept. What can’t be read, or is of another version, is as usual; the rest stays. */
export function preferencesIn(text: string): Preferences {
  const next = usualPreferences();
  let stored: unknown;
  try {
    stored = JSON.parse(text);
  } catch {
    return next;
  }
  if (typeof stored !== 'object' || stored === null) return next;
  for (const [key, schema] of Object.entries(PreferencesSchema.shape)) {
    const read = schema.safeParse((stored as Record<string, unknown>)[key]);
    if (read.success) Object.assign(next, { [key]: read.data });
  }
  return next;
}
