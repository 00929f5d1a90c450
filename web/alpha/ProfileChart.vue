<script setup lang="ts">
/** The profile: heights along the cut line, in per cent of the picture's side both ways, with the ground marked. */
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use, type EChartsCoreOption } from 'echarts/core';
import ChartBox from '../controls/ChartBox.vue';
import { roleColour } from '../styles/roles';
import { sample } from '#core/picture';
import type { CutLine } from './cutLine';

const props = defineProps<{ heights: Float32Array; size: number; cut: CutLine; relief: number; ground: number }>();
use([LineChart, GridComponent, MarkLineComponent, TooltipComponent]);

function option(): EChartsCoreOption {
  const { cut, size, relief, ground } = props;
  const picture = { width: size, height: size, data: props.heights };
  const length = Math.hypot(cut.x1 - cut.x0, cut.y1 - cut.y0);
  const steps = Math.max(2, Math.min(700, Math.round(length * size)));
  const data = Array.from({ length: steps + 1 }, (_, k) => {
    const t = k / steps;
    const grey = sample(picture, cut.x0 + (cut.x1 - cut.x0) * t, cut.y0 + (cut.y1 - cut.y0) * t);
    return [t * length * 100, (grey - ground) * relief * 100, grey];
  });
  const ink = roleColour('--ink-2');
  const act = roleColour('--act');
  const text = { color: ink, fontFamily: 'IBM Plex Sans', fontSize: 10.5 };
  const low = -ground * relief * 100;
  const high = (1 - ground) * relief * 100;
  return {
    animation: false,
    grid: { left: 44, right: 14, top: 22, bottom: 34 },
    tooltip: {
      trigger: 'axis',
      textStyle: { fontSize: 11, fontFamily: 'IBM Plex Sans' },
      formatter: (rows: { value: [number, number, number] }[]) =>
        rows[0]
          ? `${rows[0].value[0].toFixed(1)} % along<br>height ${rows[0].value[1].toFixed(2)} % of the side<br>grey ${rows[0].value[2].toFixed(3)}`
          : '',
    },
    xAxis: {
      type: 'value',
      min: 0,
      max: Number((length * 100).toFixed(1)),
      name: 'along the cut, % of the side',
      nameLocation: 'middle',
      nameGap: 19,
      nameTextStyle: text,
      axisLabel: { ...text, formatter: (v: number) => String(Math.round(v)) },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: ink }, onZero: false },
    },
    yAxis: {
      type: 'value',
      min: Number(low.toFixed(3)),
      max: Number(high.toFixed(3)),
      name: 'height, % of the side',
      nameTextStyle: { ...text, align: 'left', padding: [0, 0, 0, -34] },
      nameGap: 8,
      splitNumber: 3,
      axisLabel: { ...text, showMaxLabel: false, showMinLabel: low === 0, formatter: (v: number) => v.toFixed(1) },
      splitLine: { lineStyle: { color: roleColour('--line-soft') } },
    },
    series: [
      {
        type: 'line',
        data,
        showSymbol: false,
        lineStyle: { color: act, width: 1.6 },
        areaStyle: { color: roleColour('--act-wash'), origin: 'start' },
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: roleColour('--warn'), type: 'dashed' },
          label: {
            formatter: 'ground',
            position: ground > 0.5 ? 'insideStartBottom' : 'insideStartTop',
            fontSize: 10.5,
            color: roleColour('--warn'),
          },
          data: [{ yAxis: 0 }],
        },
      },
    ],
  };
}
</script>

<template>
  <ChartBox class="chart" :option="option" label="Profile along the cut line" />
</template>

<style scoped>
.chart {
  height: 138px;
}
</style>
