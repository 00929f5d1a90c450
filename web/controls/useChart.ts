/** A chart for as long as its place is there: it fits it, and is drawn anew with what it shows and with the theme. */
import { useResizeObserver } from '@vueuse/core';
import { init, use, type ECharts } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { onBeforeUnmount, onMounted, watch, type Ref, type WatchSource } from 'vue';
import { onTheme } from '../styles/roles';

export function useChart(
  box: Ref<HTMLElement | undefined>,
  shown: WatchSource<unknown>,
  draw: (chart: ECharts) => void,
): void {
  use([CanvasRenderer]);
  let chart: ECharts | null = null;
  const again = (): void => {
    if (chart) draw(chart);
  };
  const stop = onTheme(again);
  onMounted(() => {
    chart = init(box.value!);
    again();
  });
  useResizeObserver(box, () => chart?.resize());
  watch(shown, again);
  onBeforeUnmount(() => {
    stop();
    chart?.dispose();
  });
}
