<script setup lang="ts">
/** The falloff: seven shapes and a curve of your own. */
import { computed } from 'vue';
import { falloffFunction } from '#core/falloff';
import { FALLOFF_KINDS, FalloffSchema, settingAt, type CurveNode, type FalloffSettings } from '#core/settings';
import CurveEditor from './CurveEditor.vue';
import SettingSlider from './SettingSlider.vue';
import SelectField from './SelectField.vue';

const props = defineProps<{ modelValue: FalloffSettings }>();
const emit = defineEmits<{ 'update:modelValue': [value: FalloffSettings] }>();

const LABELS: Record<FalloffSettings['kind'], string> = {
  full: 'Full',
  plateau: 'Plateau',
  dome: 'Dome',
  bell: 'Bell',
  cone: 'Cone',
  needle: 'Needle',
  own: 'Own curve',
};
const CHOICES = FALLOFF_KINDS.map((value) => ({ value, label: LABELS[value] }));
const value = computed(() => falloffFunction(props.modelValue));
const describe = (node: CurveNode): string => `${(node.y * 100).toFixed(0)} % at ${node.x.toFixed(2)} r`;

function setKind(kind: FalloffSettings['kind']): void {
  if (kind !== 'own' || props.modelValue.kind === 'own')
    return emit('update:modelValue', { ...props.modelValue, kind });
  // The curve of your own begins as the shape that was there.
  const f = value.value;
  const places =
    props.modelValue.kind === 'full'
      ? [0, 1]
      : props.modelValue.kind === 'plateau'
        ? [0, props.modelValue.hold, (1 + props.modelValue.hold) / 2, 1]
        : [0, 0.25, 0.5, 0.75, 1];
  const nodes = places.map((rho) => ({ x: rho, y: Math.round(f(rho) * 1000) / 1000, corner: false }));
  emit('update:modelValue', { ...props.modelValue, kind, nodes });
}
</script>

<template>
  <div class="falloff">
    <div class="heading">
      Falloff
      <SelectField
        label="Falloff"
        class="kind"
        :choices="CHOICES"
        :model-value="modelValue.kind"
        @update:model-value="setKind"
      />
    </div>
    <CurveEditor
      :nodes="modelValue.nodes"
      :value="value"
      :editable="modelValue.kind === 'own'"
      :label="`Falloff curve, ${LABELS[modelValue.kind]}`"
      :describe="describe"
      @update:nodes="(nodes) => emit('update:modelValue', { ...modelValue, nodes })"
    />
    <div class="ends"><span>centre</span><span>rim</span></div>
    <SettingSlider
      v-if="modelValue.kind === 'plateau'"
      style="--label: 40px"
      :meta="settingAt(FalloffSchema, 'hold')"
      :model-value="modelValue.hold"
      @update:model-value="emit('update:modelValue', { ...modelValue, hold: $event })"
    />
  </div>
</template>

<style scoped>
.falloff {
  display: grid;
  gap: 6px;
}
.heading {
  align-items: center;
}
.kind {
  width: 112px;
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: 11px;
  color: var(--ink-3);
  margin-top: -3px;
}
</style>
