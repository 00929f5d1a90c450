/** What lies beside a slab's clay as steps of its history: changes of one kind that follow soon are one step. */
import type { Beside } from '#core/session';
import { SlabSchema, type Slab } from '#core/settings';

const TOGETHER_MS = 700;

/** What lies beside the clay and can be undone with it. */
const BesideSchema = SlabSchema.pick({ symmetry: true, setForms: true, references: true, cast: true });

export function besideText({ symmetry, setForms, references, cast }: Slab): string {
  return JSON.stringify({ symmetry, setForms, references, cast });
}

export function besideOf(text: string): Pick<Slab, 'symmetry' | 'setForms' | 'references' | 'cast'> {
  return BesideSchema.parse(JSON.parse(text));
}

export class BesideSteps {
  private id = 0;
  private going = { label: '', at: 0, before: '' };

  /** The step that a change belongs to: a new one, or the one that goes on. */
  step(before: string, after: string): Beside {
    const label = labelOf(before, after);
    const now = Date.now();
    if (label !== this.going.label || now - this.going.at > TOGETHER_MS) {
      this.id++;
      this.going = { label, at: now, before };
    }
    this.going.at = now;
    return { id: this.id, before: this.going.before, after };
  }

  /** Whatever follows is a step of its own. */
  end(): void {
    this.going.label = '';
  }
}

/** What kind of change it was: of which of them, and of which numbers in it. */
function labelOf(before: string, after: string): string {
  const [was, now] = [before, after].map((text) => JSON.parse(text) as Record<string, unknown>);
  return pathsThatDiffer(was, now).join(' ');
}

function pathsThatDiffer(a: unknown, b: unknown, path = ''): string[] {
  if (JSON.stringify(a) === JSON.stringify(b)) return [];
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null)
    return [path.replace(/\.[xy]$/, '.place')];
  if (Array.isArray(a) && Array.isArray(b) && a.length !== b.length) return [`${path} ${a.length} ${b.length}`];
  const [was, now] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [
    ...new Set(Object.keys({ ...was, ...now }).flatMap((key) => pathsThatDiffer(was[key], now[key], `${path}.${key}`))),
  ];
}
