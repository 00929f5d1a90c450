<script setup lang="ts">
/** Three ways to a stamp on clay, for who is new here: sculpt a form, open a picture, try a brush. */
import { Brush, Image, Mountain } from '@lucide/vue';
import { computed, ref, type Component } from 'vue';
import { useRouter } from 'vue-router';
import PushButton from '../controls/PushButton.vue';
import { PICTURE_ENDINGS, usePickFiles } from '../controls/pickFiles';
import { failNotice } from '../controls/undoNotice';
import { benchOf, useArrivals } from '../stores/arrivals';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useTour } from '../stores/tour';
import { useNewSource } from './newSource';

const emit = defineEmits<{ close: [] }>();
defineProps<{ closable?: boolean }>();
const router = useRouter();
const library = useLibrary();
const arrivals = useArrivals();
const tour = useTour();
const fresh = useNewSource();
const going = ref(false);

async function go(to: () => Promise<string>): Promise<void> {
  if (going.value) return;
  going.value = true;
  try {
    await router.push(await to());
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    going.value = false;
  }
}
const sculpt = (): Promise<void> => go(async () => `/bench/slab/${await fresh.addSlab()}`);
/** A single picture is opened as what it was taken for; the list of sources says what that was, and changes it. */
const pick = usePickFiles(
  { accept: PICTURE_ENDINGS, several: true },
  (files) =>
    void go(async () => {
      await router.push('/sources');
      const came = await arrivals.add(files);
      return (files.length === 1 && came[0] && benchOf(came[0])) || '/sources';
    }),
);
/** One that leaves something at a single press. */
const first = computed(() => {
  const all = [...library.beltIds.flatMap((id) => library.brushHead(id) ?? []), ...library.brushes];
  const easy = all.find(({ stroke, touch }) => touch.action === 'lift' && ['press', 'trail'].includes(stroke.type));
  return (easy ?? all[0])?.id ?? null;
});
const tried = (): Promise<void> => go(() => Promise.resolve(`/bench/brush/${first.value}`));

interface Way {
  icon: Component;
  title: string;
  text: string;
  act: () => void;
}
const ways = computed<Way[]>(() => [
  {
    icon: Mountain,
    title: 'Sculpt a form',
    text: 'A slab of clay, seen from above. Cast what you sculpt into an alpha.',
    act: () => void sculpt(),
  },
  {
    icon: Image,
    title: 'Open a picture',
    text: 'A height map, a scanned page of marks, or a photograph of a surface.',
    act: pick,
  },
  ...(first.value
    ? [
        {
          icon: Brush,
          title: 'Try a brush',
          text: 'Stamp on a body, turn its settings, and save your own version.',
          act: () => void tried(),
        },
      ]
    : []),
]);
</script>

<template>
  <section class="ways" aria-label="Ways in">
    <PushButton v-for="way in ways" :key="way.title" look="face" class="way" :disabled="going" @click="way.act">
      <component :is="way.icon" :size="22" aria-hidden="true" />
      <span class="words"
        ><b>{{ way.title }}</b
        ><small>{{ way.text }}</small></span
      >
    </PushButton>
    <div class="aside">
      <PushButton small @click="tour.begin()">{{ tour.left > 0 ? 'Go on with the tour' : 'Take the tour' }}</PushButton>
      <PushButton v-if="closable" small look="quiet" title="Settings, About has the tour again" @click="emit('close')"
        >Dismiss</PushButton
      >
    </div>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
  align-items: stretch;
  margin-bottom: 20px;
}
.way {
  padding: 14px 16px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
}
.way:hover {
  border-color: var(--act);
}
.way :deep(> span) {
  display: flex;
  gap: 14px;
  align-items: center;
}
.way svg {
  flex: none;
  color: var(--act);
}
.words {
  display: grid;
  gap: 2px;
}
b {
  font-size: 14px;
  font-weight: 600;
}
small {
  color: var(--ink-2);
  font-size: 12px;
}
.aside {
  display: flex;
  flex-direction: column;
  gap: 6px;
  justify-content: center;
  align-items: flex-start;
}
.aside :deep(.el-button) {
  margin: 0;
}
</style>
