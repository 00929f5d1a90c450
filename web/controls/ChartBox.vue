<script setup lang="ts">
/** A chart that fits its place, and is drawn anew with what it shows and with the theme. */
import type { EChartsCoreOption } from 'echarts/core';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { computed, markRaw, onBeforeUnmount, ref } from 'vue';
import VChart from 'vue-echarts';
import 'vue-echarts/style.css';
import { onTheme } from '../styles/roles';

const props = defineProps<{
  /** What it shows; colours are asked for by their roles. */
  option: () => EChartsCoreOption;
  /** What it is, to those who don’t see it. */
  label: string;
}>();
use([CanvasRenderer]);
const themes = ref(0);
onBeforeUnmount(onTheme(() => themes.value++));
const shown = computed(() => ({ option: markRaw(props.option()), theme: themes.value }).option);
</script>

<template>
  <VChart
    class="chart"
    role="img"
    :aria-label="label"
    :option="shown"
    :update-options="{ replaceMerge: ['series'] }"
    autoresize
  />
</template>

<style scoped>
.chart {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
}
</style>
