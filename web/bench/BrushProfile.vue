<script setup lang="ts">
/**
 * The profile of one dab, or of a run of dabs at the spacing: body units on the left, per cent of the depth on the
 * right.
 */
import { LineChart } from 'echarts/charts';
import {
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  MarkPointComponent,
  TooltipComponent,
} from 'echarts/components';
import { use, type EChartsCoreOption } from 'echarts/core';
import { computed } from 'vue';
import ChartBox from '../controls/ChartBox.vue';
import { roleColour } from '../styles/roles';
import type { ResolvedBrush } from '#core/brush';
import { DISC_LIMIT, RIM_LIMIT, RIPPLE_LIMIT } from '#core/checks';
import { dabCut, fullHeight, runCut, sense, weightAt, type StampMeasures } from '#core/profile';
import { useLengths } from '../controls/lengths';

const props = defineProps<{ stamp: ResolvedBrush; measures: StampMeasures; run: boolean }>();
use([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, MarkPointComponent, TooltipComponent]);
const lengths = useLengths();

/** Round figures for an axis of body units, whatever the brush's size. */
function digitsFor(span: number): number {
  return Math.max(0, Math.min(5, 1 - Math.floor(Math.log10(Math.max(1e-9, span)))));
}

/** What the dashed line over the ground stands for; told above the chart, where no curve crosses it. */
const measured = computed(() => {
  const { stamp, measures, run } = props;
  if (run)
    return measures.ripple > 0
      ? { text: `ripple ${(measures.ripple * 100).toFixed(1)} %`, over: measures.ripple > RIPPLE_LIMIT }
      : null;
  return stamp.alpha
    ? { text: `net lift ${(measures.lift * 100).toFixed(1)} %`, over: Math.abs(measures.disc) > DISC_LIMIT }
    : null;
});

function option(): EChartsCoreOption {
  const { stamp, measures, run } = props;
  const full = fullHeight(stamp);
  const cut = run ? runCut(stamp) : dabCut(stamp);
  const points = Array.from(cut.at, (x, i) => [x, cut.height[i]]);
  let low = Math.min(0, ...cut.height);
  let high = Math.max(0, ...cut.height);
  if (high - low < full * 0.02) high = low + Math.max(full * 0.02, 1e-6);
  const air = (high - low) * 0.12;
  // Room on either side of the ground: for the curve, or for its name.
  low -= low < 0 ? air : air * 1.4;
  high += air;
  const digits = digitsFor((high - low) * lengths.factor.value);
  const ink = roleColour('--ink-2');
  const warn = roleColour('--warn');
  const text = { color: ink, fontFamily: 'IBM Plex Sans', fontSize: 10.5 };
  const key = measured.value;
  const way = sense(stamp);
  const lift = measures.lift * full * stamp.strength * way;
  const marks = [
    {
      yAxis: 0,
      name: 'ground',
      lineStyle: { color: ink },
      label: { color: ink, position: way > 0 ? 'insideStartBottom' : 'insideStartTop' },
    },
    ...(key
      ? [
          {
            yAxis: run ? (way > 0 ? Math.max(...cut.height) : Math.min(...cut.height)) : lift,
            name: '',
            lineStyle: { color: key.over ? warn : ink },
            label: { show: false },
          },
        ]
      : []),
    ...(run
      ? []
      : [-1, 1].map((x) => ({
          xAxis: x,
          name: '',
          lineStyle: { color: roleColour('--line'), type: 'solid' },
          label: { show: false },
        }))),
  ];
  const step =
    !run && measures.rimStep > RIM_LIMIT
      ? [-1, 1].map((x) => ({
          coord: [x, measures.rimStep * full * way],
          name: `step ${(measures.rimStep * 100).toFixed(0)} %`,
        }))
      : [];
  return {
    animation: false,
    grid: { left: 46, right: 40, top: 22, bottom: 36 },
    tooltip: {
      trigger: 'axis',
      textStyle: { fontSize: 11, fontFamily: 'IBM Plex Sans' },
      formatter: (rows: { value: [number, number] }[]) =>
        rows[0]
          ? `${rows[0].value[0].toFixed(2)} r from the middle<br>height ${rows[0].value[1].toFixed(digits + 1)}, ${full > 0 ? ((rows[0].value[1] / full) * 100).toFixed(0) : 0} % of the depth`
          : '',
    },
    xAxis: {
      type: 'value',
      min: -1.2,
      max: cut.at[cut.at.length - 1] + 0.05,
      interval: 0.2,
      name: run ? 'along the stroke, radii' : 'across the dab, radii',
      nameLocation: 'middle',
      nameGap: 20,
      nameTextStyle: text,
      axisLabel: {
        ...text,
        showMinLabel: false,
        showMaxLabel: false,
        formatter: (v: number) => (Math.abs(v - Math.round(v)) < 1e-6 ? String(Math.round(v)) : ''),
        interval: 0,
        hideOverlap: true,
      },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLine: { show: false, onZero: false },
    },
    yAxis: [
      {
        type: 'value',
        min: low,
        max: high,
        name: lengths.unit.value,
        position: 'left',
        axisLine: { onZero: false, show: false },
        axisTick: { show: false },
        nameTextStyle: { ...text, align: 'left', padding: [0, 0, 0, -36] },
        nameGap: 8,
        splitNumber: 3,
        axisLabel: {
          ...text,
          showMinLabel: false,
          showMaxLabel: false,
          formatter: (v: number) => (v * lengths.factor.value).toFixed(digits),
        },
        splitLine: { lineStyle: { color: roleColour('--line-soft') } },
      },
      {
        type: 'value',
        min: full > 0 ? (low / full) * 100 : 0,
        max: full > 0 ? (high / full) * 100 : 100,
        name: '% depth',
        position: 'right',
        axisLine: { onZero: false, show: false },
        axisTick: { show: false },
        nameTextStyle: { ...text, align: 'right', padding: [0, -34, 0, 0] },
        nameGap: 8,
        splitNumber: 3,
        axisLabel: { ...text, showMinLabel: false, showMaxLabel: false, formatter: (v: number) => v.toFixed(0) },
        splitLine: { show: false },
      },
    ],
    series: [
      {
        type: 'line',
        data: points,
        showSymbol: false,
        lineStyle: { color: roleColour('--act'), width: 1.8 },
        areaStyle: { color: roleColour('--act-wash'), origin: 'start', opacity: 0.6 },
        markLine: {
          silent: true,
          z: 10,
          symbol: 'none',
          lineStyle: { type: 'dashed', width: 1 },
          label: {
            formatter: '{b}',
            backgroundColor: roleColour('--field'),
            padding: [0, 2],
            fontSize: 10.5,
            fontFamily: 'IBM Plex Sans',
          },
          data: marks,
        },
        markPoint: {
          symbol: 'circle',
          symbolSize: 7,
          itemStyle: { color: warn },
          label: { show: true, position: 'top', formatter: '{b}', fontSize: 10.5, color: warn },
          data: step,
        },
      },
      ...(run
        ? []
        : [
            {
              type: 'line',
              yAxisIndex: 1,
              data: Array.from(cut.at, (x) => [x, weightAt(stamp, x, 0) * 100 * stamp.strength * way]),
              showSymbol: false,
              lineStyle: { color: ink, width: 1, type: 'dotted' },
              tooltip: { show: false },
            },
          ]),
    ],
  };
}
</script>

<template>
  <div class="profile">
    <ChartBox class="chart" :option="option" label="Profile of the dab" />
    <span v-if="measured" class="key" :class="{ over: measured.over }">{{ measured.text }}</span>
  </div>
</template>

<style scoped>
.profile {
  position: relative;
}
.key {
  position: absolute;
  top: 5px;
  left: 50%;
  transform: translateX(-50%);
  font-size: 10.5px;
  color: var(--ink-2);
  pointer-events: none;
}
.key::before {
  content: '';
  display: inline-block;
  width: 16px;
  border-top: 1px dashed currentColor;
  vertical-align: 3px;
  margin-right: 5px;
}
.key.over {
  color: var(--warn);
}
.chart {
  height: 152px;
}
</style>
