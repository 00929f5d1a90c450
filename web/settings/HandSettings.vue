<script setup lang="ts">
/** Looks, lengths, pen and touch, undo and credit. */
import { computed } from 'vue';
import {
  LICENCES,
  PreferencesSchema,
  SLAB_SIDE,
  type FingerUse,
  type LengthUnit,
  type Preferences,
} from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingList from '../controls/SettingList.vue';
import TextField from '../controls/TextField.vue';
import ThemeChoice from '../controls/ThemeChoice.vue';
import TickBox from '../controls/TickBox.vue';
import TypedChoice from '../controls/TypedChoice.vue';
import { plain } from '../api/plain';
import { usePreferences } from '../stores/preferences';

const preferences = usePreferences();
function own<K extends keyof Preferences>(key: K) {
  return computed<Preferences[K]>({
    get: () => preferences.now[key],
    set: (value) => preferences.change({ [key]: value } as Pick<Preferences, K>),
  });
}
function edit(change: (next: Preferences) => void): void {
  const next = plain(preferences.now);
  change(next);
  preferences.change(next);
}
const lengths = own('lengths');
const finger = own('finger');
const penRules = own('penRules');
const author = own('author');
const licence = own('licence');
const LENGTHS: readonly { value: LengthUnit; label: string; help: string }[] = [
  { value: 'body', label: 'Body units', help: 'Without a real size: bodies are about two units across' },
  { value: 'mm', label: 'Millimetres', help: 'By the scale below' },
];
const FINGER: readonly { value: FingerUse; label: string; help: string }[] = [
  { value: 'stroke', label: 'Sculpts', help: 'One finger lays strokes, and two move the view' },
  {
    value: 'move',
    label: 'Moves the view',
    help: 'One finger pans or turns, and strokes are the pen’s and the mouse’s',
  },
];
const slabSide = computed(() => `${Number((SLAB_SIDE * preferences.now.mmPerUnit).toPrecision(4))} mm`);
</script>

<template>
  <div class="panels">
    <section>
      <h2>Looks</h2>
      <div class="line">
        <span>Theme</span>
        <ThemeChoice />
      </div>
    </section>
    <section>
      <h2>Lengths</h2>
      <div class="line">
        <span>Shown in</span>
        <ChoiceBar v-model="lengths" label="Lengths are shown in" :options="LENGTHS" />
      </div>
      <SettingList :schema="PreferencesSchema" :of="preferences.now" :paths="['mmPerUnit']" @edit="edit" />
      <p class="muted">
        The slab is {{ slabSide }} across. Meshes you export have this size; what is saved here keeps its shape,
        whatever the scale.
      </p>
    </section>
    <section>
      <h2>Pen and touch</h2>
      <div class="line">
        <span>One finger</span>
        <ChoiceBar v-model="finger" label="One finger" :options="FINGER" />
      </div>
      <TickBox v-model="penRules">Once a pen has been used, fingers only move the view</TickBox>
      <p class="muted">Two fingers always pan, zoom and turn.</p>
    </section>
    <section>
      <h2>Undo</h2>
      <SettingList :schema="PreferencesSchema" :of="preferences.now" :paths="['undoMb']" @edit="edit" />
      <p class="muted">
        For each body and slab that is open, in memory. When it is full, the oldest steps can’t be undone any more; the
        work itself stays.
      </p>
    </section>
    <section>
      <h2>Credit on new things</h2>
      <label class="line" for="settings-author">
        <span>Author</span>
        <TextField id="settings-author" v-model="author" maxlength="120" placeholder="Your name, or your studio’s" />
      </label>
      <div class="line">
        <span>Licence</span>
        <TypedChoice v-model="licence" label="Licence" :choices="LICENCES" placeholder="Not stated" />
      </div>
      <p class="muted">
        The author goes onto new sources, alphas, parts, brushes and packs, the licence onto new packs. What has an
        author keeps it.
      </p>
    </section>
  </div>
</template>

<style scoped>
.panels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr));
  gap: 26px 40px;
  max-width: 1240px;
  align-items: start;
}
section {
  display: grid;
  gap: 8px;
  --label: 96px;
  --typed: 88px;
}
h2 {
  font-size: 14px;
  font-weight: 600;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--line-soft);
}
.line {
  display: grid;
  grid-template-columns: var(--label) minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  min-height: 30px;
}
.line > span {
  color: var(--ink-2);
}
</style>
