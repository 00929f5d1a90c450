/** Precision and recall of finding marks over 200 generated sheets. */
import { scoreMarks } from '../demo/sheets/score';
import type { Figure } from './measure';

const SHEETS = 200;

export function marksFigures(): Figure[] {
  let found = 0;
  let right = 0;
  let wanted = 0;
  for (let seed = 1; seed <= SHEETS; seed++) {
    const score = scoreMarks(seed);
    found += score.found;
    right += score.right;
    wanted += score.wanted;
  }
  const figure = (key: string, what: string, value: number): Figure => ({
    key,
    what,
    value: value * 100,
    unit: '%',
    floor: { what: `${wanted} marks printed on ${SHEETS} sheets, ${found} found, ${right} of them right`, value: 100 },
    target: { text: '≥ 95', met: value >= 0.95 },
  });
  return [
    figure('marks_precision', 'found marks that are marks', right / found),
    figure('marks_recall', 'marks that are found', right / wanted),
  ];
}
