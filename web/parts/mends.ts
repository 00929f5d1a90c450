/** What mends each check of a part, as it stands on its button. */
import type { Check } from '#core/checks';
import { seatOnFlattest } from '#core/part';
import type { Budget } from '#core/settings';
import type { usePartBench } from '../stores/partBench';

/** A part that is too heavy is brought down to so many faces. */
const LIGHT_FACES = 1000;

const PART_MENDS: Partial<Record<Check['name'], string>> = {
  weight: `Bring it down to ${LIGHT_FACES}`,
  open: 'Close it',
  inward: 'Turn them',
  crossing: 'Make its faces even',
  resting: 'Rest it on its flattest side',
  'off-axis': 'Stand it straight',
};

/** What mends it now; nothing where that was done already. */
export function mendLabel(name: Check['name'], budget: Budget): string {
  if (name === 'crossing' && budget.way === 'even') return '';
  return PART_MENDS[name] ?? '';
}

export function mendPart(bench: ReturnType<typeof usePartBench>, name: Check['name']): void {
  switch (name) {
    case 'weight':
      return bench.setBudget({ ...bench.budget!, faces: LIGHT_FACES });
    case 'open':
      return void bench.mend('close');
    case 'inward':
      return void bench.mend('outward');
    case 'crossing':
      return bench.setBudget({ ...bench.budget!, way: 'even' });
    case 'resting':
    case 'off-axis':
      return bench.reseat('on its flattest side', (mesh, now) => seatOnFlattest(mesh, now.forward));
    default:
      throw new Error(`“${name}” is no check of a part.`);
  }
}
