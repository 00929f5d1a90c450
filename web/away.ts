/**
 * The whole page is kept by the browser, so that it opens without the server and every place of it with it. A newer
 * one takes its place when asked to, or once all its windows were closed: a page never runs with parts of another.
 */
import { registerSW } from 'virtual:pwa-register';
import { askNotice } from './controls/undoNotice';

export function keepPage(): void {
  const update = registerSW({
    onNeedRefresh: () => askNotice('A newer Mold Stamp is ready.', 'Reload', () => update(true)),
  });
}
