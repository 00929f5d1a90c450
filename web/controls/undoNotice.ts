/** Short notices: what was done, with a way to take it back, and what couldn’t be. */
import { ElNotification } from 'element-plus';
import { h } from 'vue';
import { sentence } from '../stores/connection';
import PushButton from './PushButton.vue';

/** Over the belt, and over what stands at the foot of a view. */
const OVER_BELT_PX = 148;

/** Answers what closes it. */
export const undoNotice = (message: string, undo: () => Promise<void>): (() => void) =>
  askNotice(message, 'Undo', undo, 9000);

/** Says something and offers one thing to do about it. Without a time it stays. */
export function askNotice(message: string, what: string, act: () => Promise<void>, ms = 0): () => void {
  const note = ElNotification({
    message: h('div', { style: 'display:flex;gap:14px;align-items:center' }, [
      h('span', message),
      h(
        PushButton,
        {
          look: 'link',
          onClick: () => {
            note.close();
            orSay(act);
          },
        },
        () => what,
      ),
    ]),
    position: 'bottom-left',
    offset: OVER_BELT_PX,
    duration: ms,
    showClose: true,
  });
  return () => note.close();
}

/** Does it; what can't be done is said. */
export function orSay(act: () => Promise<void>): void {
  void act().catch((error: unknown) => failNotice(sentence(error)));
}

/** The same for what is done at once. */
export function trying(act: () => void): void {
  try {
    act();
  } catch (error) {
    failNotice(sentence(error));
  }
}

export function failNotice(message: string): void {
  ElNotification({ message, type: 'error', position: 'bottom-left', offset: OVER_BELT_PX, duration: 8000 });
}

export function tellNotice(message: string): void {
  shortNotice(message);
}

/** Answers what closes it. */
export function shortNotice(message: string): () => void {
  const note = ElNotification({ message, position: 'bottom-left', offset: OVER_BELT_PX, duration: 4000 });
  return () => note.close();
}
