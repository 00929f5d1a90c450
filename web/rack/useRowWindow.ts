/** Of a long grid only the rows that are seen are laid out, and some above and below them. */
import { useResizeObserver } from '@vueuse/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, watch, type ComputedRef, type Ref } from 'vue';

/** So few are all laid out. */
const ALL = 8;
const ROWS_BEYOND = 2;
/** Until they are measured. */
const GUESS = { columns: 5, row: 268, gap: 16 };

export interface RowWindow {
  /** From the first to before the last. */
  range: ComputedRef<{ from: number; to: number }>;
  /** Only rows that are seen are laid out. */
  windowed: ComputedRef<boolean>;
  /** Room for what isn’t laid out. */
  style: ComputedRef<{ paddingTop?: string; paddingBottom?: string }>;
}

/** `held` keeps what is laid out as it is: something of it is being dragged. */
export function useRowWindow(
  grid: Readonly<Ref<HTMLElement | null>>,
  count: ComputedRef<number>,
  held: Readonly<Ref<boolean>>,
): RowWindow {
  const columns = ref(GUESS.columns);
  const row = ref(GUESS.row);
  const above = ref(0);
  const scroller = computed(() => grid.value?.closest<HTMLElement>('.el-scrollbar__wrap') ?? null);
  const content = computed(() => grid.value?.closest<HTMLElement>('.el-scrollbar__view') ?? null);
  const long = computed(() => count.value > ALL);
  const rows = computed(() => (long.value ? Math.ceil(count.value / columns.value) : 0));
  const virtual = useVirtualizer(
    computed(() => ({
      count: rows.value,
      getScrollElement: () => scroller.value,
      estimateSize: () => row.value,
      scrollMargin: above.value,
      overscan: ROWS_BEYOND,
      initialRect: { width: 1000, height: 900 },
    })),
  );

  /** How many stand in a row, how high one is, and where the first begins. */
  function measure(): void {
    const [own, outer] = [grid.value, scroller.value];
    if (!own || !outer || !long.value) return;
    const style = getComputedStyle(own);
    columns.value = Math.max(1, style.gridTemplateColumns.split(' ').length);
    const card = own.querySelector<HTMLElement>('[data-card]');
    const gap = parseFloat(style.rowGap) || GUESS.gap;
    if (card) row.value = Math.round((card.getBoundingClientRect().height + gap) * 4) / 4;
    above.value = own.getBoundingClientRect().top - outer.getBoundingClientRect().top + outer.scrollTop;
  }
  useResizeObserver([grid, content] as unknown as Ref<HTMLElement | null>, measure);
  watch([row, columns], () => virtual.value.measure());
  watch([grid, long], () => void nextTick(measure));

  const now = computed(() => {
    if (!long.value) return { from: 0, to: count.value };
    const { scrollOffset, scrollRect } = virtual.value;
    const beyond = (ROWS_BEYOND + 1) * row.value;
    const [top, bottom] = [(scrollOffset ?? 0) - beyond, (scrollOffset ?? 0) + (scrollRect?.height ?? 900) + beyond];
    // A grid that is out of sight has none.
    const seen = virtual.value.getVirtualItems().filter(({ start, end }) => end > top && start < bottom);
    if (seen.length === 0) return { from: 0, to: 0 };
    const [first, last] = [seen[0].index, seen.at(-1)!.index];
    return { from: first * columns.value, to: Math.min(count.value, (last + 1) * columns.value) };
  });
  const range = computed<{ from: number; to: number }>((before) => (held.value && before ? before : now.value));
  const style = computed(() => {
    if (!long.value) return {};
    const { from, to } = range.value;
    const below = rows.value - Math.ceil(to / columns.value);
    return { paddingTop: `${(from / columns.value) * row.value}px`, paddingBottom: `${below * row.value}px` };
  });
  return { range, windowed: long, style };
}
