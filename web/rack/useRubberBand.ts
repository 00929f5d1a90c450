/** A box drawn over empty ground chooses the cards that it meets. */
import { onBeforeUnmount, ref, type Ref } from 'vue';

/** A press that moves less is a click. */
const MOVES_PX = 5;
/** A press on one of these is its own. */
const ITS_OWN = '.card, button, a, input, textarea, label, h2, .el-scrollbar__bar, [role="dialog"]';

export interface Band {
  left: number;
  top: number;
  width: number;
  height: number;
}

interface Going {
  pointer: number;
  /** Where it began, in the page that scrolls. */
  x: number;
  y: number;
  last: { x: number; y: number };
  before: ReadonlySet<string>;
  drawn: boolean;
}

/**
 * `page` is what holds the cards, each with `data-card`; `chosen` what is chosen now. With Ctrl or Shift the box adds
 * to it. Esc, or another press, leaves it as it was.
 */
export function useRubberBand(
  page: Ref<HTMLElement | null>,
  chosen: Readonly<Ref<ReadonlySet<string>>>,
  choose: (ids: Iterable<string>) => void,
): { band: Ref<Band | null>; begin: (e: PointerEvent) => void } {
  const band = ref<Band | null>(null);
  let going: (Going & { keeps: boolean }) | null = null;

  function begin(e: PointerEvent): void {
    if (going) return abandon();
    if (e.button !== 0 || e.pointerType === 'touch' || !page.value) return;
    if ((e.target as HTMLElement).closest(ITS_OWN)) return;
    const origin = page.value.getBoundingClientRect();
    const keeps = e.ctrlKey || e.metaKey || e.shiftKey;
    going = {
      pointer: e.pointerId,
      x: e.clientX - origin.left,
      y: e.clientY - origin.top,
      last: { x: e.clientX, y: e.clientY },
      before: chosen.value,
      drawn: false,
      keeps,
    };
    listen(true);
  }

  function move(e: PointerEvent): void {
    if (e.pointerId !== going?.pointer) return;
    going.last = { x: e.clientX, y: e.clientY };
    draw();
  }

  function draw(): void {
    if (!going || !page.value) return;
    const origin = page.value.getBoundingClientRect();
    const [x, y] = [going.x + origin.left, going.y + origin.top];
    const { last } = going;
    if (!going.drawn && Math.hypot(last.x - x, last.y - y) < MOVES_PX) return;
    going.drawn = true;
    const box = {
      left: Math.min(x, last.x),
      top: Math.min(y, last.y),
      right: Math.max(x, last.x),
      bottom: Math.max(y, last.y),
    };
    band.value = { left: box.left, top: box.top, width: box.right - box.left, height: box.bottom - box.top };
    const met = [...page.value.querySelectorAll<HTMLElement>('[data-card]')].filter((card) => {
      const r = card.getBoundingClientRect();
      return r.left < box.right && r.right > box.left && r.top < box.bottom && r.bottom > box.top;
    });
    choose([...(going.keeps ? going.before : []), ...met.map((card) => card.dataset['card']!)]);
  }

  function end(e: PointerEvent): void {
    if (e.pointerId !== going?.pointer) return;
    // A click on empty ground lets go of all.
    if (!going.drawn && !going.keeps) choose([]);
    stop();
  }

  function abandon(): void {
    if (!going) return;
    choose(going.before);
    stop();
  }

  function stop(): void {
    going = null;
    band.value = null;
    listen(false);
  }

  /** Of the window, not of what had the focus in it. */
  const left = (e: Event): void => {
    if (e.target === window) abandon();
  };
  const escape = (e: KeyboardEvent): void => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    abandon();
  };
  const EVENTS = [
    ['pointermove', move],
    ['pointerup', end],
    ['pointercancel', abandon],
    ['blur', left],
    ['keydown', escape],
    ['scroll', draw],
  ] as const;
  function listen(on: boolean): void {
    for (const [name, heard] of EVENTS)
      if (on) window.addEventListener(name, heard as EventListener, { capture: true });
      else window.removeEventListener(name, heard as EventListener, { capture: true });
  }
  onBeforeUnmount(stop);
  return { band, begin };
}
