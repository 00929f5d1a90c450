/** Says what was done and offers to take it back. */
import { ElNotification } from 'element-plus';
import { h } from 'vue';
import { sentence } from '../stores/connection';
import PushButton from './PushButton.vue';

/** Over the belt, and over what stands at the foot of a view. */
const OVER_BELT_PX = 148;

/** Answers what closes it. */
export function undoNotice(message: string, undo: () => Promise<void>): () => void {
  const note = ElNotification({
    message: h('div', { style: 'display:flex;gap:14px;align-items:center' }, [
      h('span', message),
      h(
        PushButton,
        {
          look: 'link',
          onClick: () => {
            note.close();
            orSay(undo);
          },
        },
        () => 'Undo',
      ),
    ]),
    position: 'bottom-left',
    offset: OVER_BELT_PX,
    duration: 9000,
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
