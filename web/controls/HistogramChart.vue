<script setup lang="ts">
/** How many pixels have which height: from floor to crown, in per cent of the picture. */
import { BarChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use, type EChartsCoreOption } from 'echarts/core';
import ChartBox from './ChartBox.vue';
import { roleColour } from '../styles/roles';
import { useLengths } from './lengths';

const props = defineProps<{ counts: Uint32Array; floor: number; crown: number }>();
use([BarChart, GridComponent, TooltipComponent]);
const lengths = useLengths();

function option(): EChartsCoreOption {
  const total = props.counts.reduce((a, b) => a + b, 0) || 1;
  const bins = props.counts.length;
  const at = (i: number): number => props.floor + ((i + 0.5) / bins) * (props.crown - props.floor);
  const data = Array.from(props.counts, (n, i) => [at(i), (100 * n) / total]);
  // One tall bar of bare ground would press the form flat: the axis ends a little above the rest.
  const shares = data.map(([, share]) => share!).sort((a, b) => b - a);
  const top = Math.max(shares[2] ?? 0, 0.2) * 1.25;
  const ink = roleColour('--ink-2');
  const text = { color: ink, fontFamily: 'IBM Plex Sans', fontSize: 10.5 };
  return {
    animation: false,
    grid: { left: 36, right: 10, top: 20, bottom: 34 },
    tooltip: {
      trigger: 'axis',
      textStyle: { fontSize: 11, fontFamily: 'IBM Plex Sans' },
      formatter: (rows: { value: [number, number] }[]) =>
        rows[0]
          ? `height ${lengths.told(rows[0].value[0], 0.001)}<br>${rows[0].value[1].toFixed(2)} % of the pixels`
          : '',
    },
    xAxis: {
      type: 'value',
      min: props.floor,
      max: props.crown,
      name: `height, ${lengths.unit.value}`,
      nameLocation: 'middle',
      nameGap: 19,
      nameTextStyle: text,
      interval: (props.crown - props.floor) / 4,
      axisLabel: { ...text, formatter: (v: number) => (v * lengths.factor.value).toFixed(lengths.inMm.value ? 2 : 3) },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: ink } },
    },
    yAxis: {
      type: 'value',
      max: Number(top.toPrecision(2)),
      name: '% of pixels',
      nameTextStyle: { ...text, align: 'left', padding: [0, 0, 0, -30] },
      nameGap: 7,
      splitNumber: 2,
      axisLabel: text,
      splitLine: { lineStyle: { color: roleColour('--line-soft') } },
    },
    series: [
      {
        type: 'bar',
        data,
        barCategoryGap: 0,
        barWidth: '100%',
        itemStyle: { color: roleColour('--act') },
      },
    ],
  };
}
</script>

<template>
  <ChartBox class="chart" :option="option" label="Histogram of heights" />
</template>

<style scoped>
.chart {
  height: 118px;
}
</style>
