/** Says what was done, one thing at a time, and offers to take it back; Ctrl+Z and Ctrl+Y do so as well. */
import { watch } from 'vue';
import { useRackSteps } from '../stores/rackSteps';
import { useShortcuts } from '../keys/shortcuts';
import { failNotice, shortNotice, undoNotice } from './undoNotice';

export function useSaidSteps(): void {
  const steps = useRackSteps();
  let closeLast: (() => void) | null = null;
  watch(
    () => steps.said,
    (said) => {
      if (!said) return;
      closeLast?.();
      closeLast = null;
      if ('undo' in said) closeLast = undoNotice(said.text, said.undo);
      else if (said.failed) failNotice(said.text);
      else closeLast = shortNotice(said.text);
    },
  );
  useShortcuts([
    { command: 'undo', what: 'Undo what was done here', run: () => void steps.undo() },
    { command: 'redo', what: 'Do it again', run: () => void steps.redo() },
  ]);
}
