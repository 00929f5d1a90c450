<script setup lang="ts">
/** The cast as it is now: its picture, crown and floor, what was measured, what the checks found and what mends it. */
import { computed, ref } from 'vue';
import type { Check } from '#core/checks';
import CheckNote from '../controls/CheckNote.vue';
import PushButton from '../controls/PushButton.vue';
import CastPicture from './CastPicture.vue';
import { useCastDesk } from './desk';
import HeightField from './HeightField.vue';

/** `mends` are what mends a check, as it stands on its button. */
defineProps<{ mends: Partial<Record<Check['name'], string>> }>();
defineEmits<{ mend: [name: Check['name']] }>();
const cast = useCastDesk();
const all = ref(false);
const checks = computed(() => cast.result?.checks ?? []);
const found = computed(() => checks.value.filter((c) => !c.ok));
</script>

<template>
  <div class="top">
    <CastPicture
      ><template #flat><slot name="flat" /></template
    ></CastPicture>
    <div class="facts">
      <HeightField
        label="Crown"
        :value="cast.settings.crown"
        :found="cast.result?.crown ?? cast.flat?.floor ?? 0"
        @put="cast.edit((c) => (c.crown = $event))"
      />
      <HeightField
        label="Floor"
        :value="cast.settings.floor"
        :found="cast.result?.floor ?? cast.flat?.floor ?? 0"
        @put="cast.edit((c) => (c.floor = $event))"
      />
      <dl v-if="cast.result">
        <dt title="(crown − floor) ÷ frame side">Relief</dt>
        <dd>{{ cast.result.relief.toFixed(4) }}</dd>
        <dt title="The grey that leaves the surface where it is">Ground</dt>
        <dd>{{ cast.result.ground.toFixed(3) }}</dd>
        <dt>Used range</dt>
        <dd>{{ (cast.result.usedRange * 100).toFixed(0) }} %</dd>
        <dt>Undercut</dt>
        <dd>{{ (cast.result.undercutShare * 100).toFixed(1) }} %</dd>
      </dl>
      <PushButton v-if="cast.result" look="quiet" class="sum" :aria-expanded="all" @click="all = !all">
        {{
          found.length === 0
            ? `All ${checks.length} checks passed`
            : `${found.length} of ${checks.length} checks found something`
        }}
      </PushButton>
    </div>
  </div>
  <CheckNote
    v-for="check in found"
    :key="check.name"
    :sentence="check.sentence"
    :mend="mends[check.name] ?? ''"
    @mend="$emit('mend', check.name)"
  />
  <ul v-if="all" class="well">
    <li v-for="check in checks.filter((c) => c.ok)" :key="check.name">{{ check.sentence }}</li>
  </ul>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: minmax(0, 220px) minmax(150px, 1fr);
  gap: 14px;
}
/* In a narrow leaf the numbers stand under the picture. */
@container (width < 370px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
.facts {
  display: grid;
  gap: 8px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 5px 10px;
}
dt {
  color: var(--ink-2);
}
dd {
  text-align: right;
}
.sum {
  padding: 0 4px;
  height: 24px;
  margin-left: -4px;
  justify-content: start;
  font-weight: 400;
  color: var(--act-deep);
  white-space: normal;
  text-align: left;
}
.well {
  font-size: var(--small);
  color: var(--ink-2);
  display: grid;
  gap: 2px;
}
@media (pointer: coarse) {
  .sum {
    min-height: 44px;
  }
}
</style>
