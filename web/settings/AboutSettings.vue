<script setup lang="ts">
import { packages, version } from 'virtual:packages';
import PushButton from '../controls/PushButton.vue';
import { useTour } from '../stores/tour';

const tour = useTour();
</script>

<template>
  <div class="about">
    <section>
      <h2>Mold Stamp {{ version }}</h2>
      <p>
        Capture height alphas and light parts from sculpted planes, pictures and scans, and keep them as brushes for
        sculpting and painting. Everything you make stays in the data folder of this server; nothing is sent elsewhere.
      </p>
      <p>Brushes travel as open files: ZIP with JSON, 16-bit PNG, EXR and GLB. MIT licence.</p>
      <PushButton class="tour" @click="tour.begin()">Take the tour</PushButton>
    </section>
    <section>
      <h2>Made with</h2>
      <p class="muted">Open packages, each under its own licence. The fonts are under the SIL Open Font License.</p>
      <ul>
        <li v-for="p in packages" :key="p.name">
          <span>{{ p.name }}</span> <i>{{ p.version }}</i> <em>{{ p.licence }}</em>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.about {
  display: grid;
  gap: 26px;
  max-width: 1100px;
}
section {
  display: grid;
  gap: 10px;
}
section > p {
  max-width: 640px;
}
h2 {
  font-size: 14px;
  font-weight: 600;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--line-soft);
}
.tour {
  justify-self: start;
}
ul {
  columns: 3 280px;
  column-gap: 32px;
}
li {
  display: flex;
  gap: 8px;
  padding: 3px 0;
  break-inside: avoid;
}
i,
em {
  font-style: normal;
  color: var(--ink-3);
}
em {
  margin-left: auto;
}
</style>
