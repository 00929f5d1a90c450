/** Groups of a brush's settings that are copied from one brush and pasted onto others. */
import { z } from 'zod';
import { BrushSchema, type Brush } from './brush';

export const SETTING_GROUPS = ['touch', 'stroke', 'drift', 'pen', 'tooth', 'colour'] as const;
export type SettingGroup = (typeof SETTING_GROUPS)[number];

const { shape } = BrushSchema;

export const CopiedSchema = z.object({
  /** The brush they were copied from, as it was called. */
  from: z.string().max(80),
  // As they are in a brush, but a group that wasn't copied is not there: it doesn't come with its defaults.
  groups: z.object({
    touch: shape.touch.unwrap().optional(),
    stroke: shape.stroke.unwrap().optional(),
    drift: shape.drift.unwrap().optional(),
    pen: shape.pen.unwrap().optional(),
    tooth: shape.tooth.unwrap().optional(),
    colour: shape.colour.unwrap().optional(),
  }),
});
export type CopiedSettings = z.infer<typeof CopiedSchema>;

export function copiedSettings(brush: Brush, groups: readonly SettingGroup[]): CopiedSettings {
  return {
    from: brush.card.name,
    groups: Object.fromEntries(groups.map((group) => [group, structuredClone(brush[group])])),
  };
}

/** What was copied, in their order. */
export function groupsIn({ groups }: CopiedSettings): SettingGroup[] {
  return SETTING_GROUPS.filter((group) => groups[group] !== undefined);
}

/** Puts the copied groups into a brush; everything else of it stays. */
export function pasteSettings(brush: Brush, copied: CopiedSettings): void {
  for (const group of groupsIn(copied)) Object.assign(brush, { [group]: structuredClone(copied.groups[group]) });
}

/** Reads what another window or an earlier version kept; null where it can't be read. */
export function copiedIn(text: string): CopiedSettings | null {
  try {
    const read = CopiedSchema.safeParse(JSON.parse(text));
    return read.success && groupsIn(read.data).length > 0 ? read.data : null;
  } catch {
    return null;
  }
}
