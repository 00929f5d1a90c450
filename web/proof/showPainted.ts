/** What shows changes of a painting in a view: another mesh that comes with them is shown first. */
import type { ClayView } from '../viewport/clayView';
import type { Painted } from '../workers/sculpt/messages';

export function showPainted(view: () => ClayView | null, show: () => void): (painted: Painted) => void {
  return ({ size, on, tiles, runs, bytes }) => {
    if (on) {
      show();
      view()?.showPaint(size, on.coordinates);
    }
    view()?.putPaint(tiles, runs, bytes);
  };
}
