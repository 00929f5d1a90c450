<script setup lang="ts">
/** What a pack says of itself: name, maker, site, licence, whose rack it stands on, notes, and its cover. */
import { computed, ref, watch } from 'vue';
import { LICENCES, NameSchema, brushesOf, type Pack } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import TagsField from '../controls/TagsField.vue';
import TextField from '../controls/TextField.vue';
import TypedChoice from '../controls/TypedChoice.vue';
import { plain } from '../api/plain';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePacks } from '../stores/packs';

/** The pack’s id; null while nothing is asked. */
const open = defineModel<string | null>({ required: true });
const packs = usePacks();
const library = useLibrary();
const own = ref<Pack | null>(null);
const problem = ref<string | null>(null);
const visible = computed({ get: () => open.value !== null, set: () => (open.value = null) });
/** Pictures to choose the cover from. */
const MOST_COVERS = 60;
const covers = computed(() =>
  brushesOf(own.value ?? { groups: [] })
    .map((id) => library.brushHead(id))
    .filter((brush) => brush !== null)
    .slice(0, MOST_COVERS),
);
const racks = computed(() => packs.racks.map((name) => ({ value: name, label: name })));

watch(open, (id) => {
  own.value = id === null ? null : plain(packs.docOf(id));
  problem.value = null;
});

function keep(): void {
  const next = own.value;
  if (!next || open.value === null) return;
  const name = NameSchema.safeParse(next.card.name);
  if (!name.success) {
    problem.value = name.error.issues[0].message;
    return;
  }
  try {
    packs.about(open.value, (pack) => {
      pack.card = { ...next.card, name: name.data };
      Object.assign(pack, { site: next.site, licence: next.licence, rack: next.rack, cover: next.cover });
    });
    open.value = null;
  } catch (error) {
    failNotice(sentence(error));
  }
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="About this pack" :width-px="560">
    <form v-if="own" @submit.prevent>
      <label for="pack-name">Name</label>
      <TextField
        id="pack-name"
        v-model="own.card.name"
        :bad="!!problem"
        maxlength="74"
        autofocus
        @keydown.enter="keep"
      />
      <p v-if="problem" class="wide sentence-bad" role="alert">{{ problem }}</p>
      <label for="pack-maker">Maker</label>
      <TextField
        id="pack-maker"
        v-model="own.card.author"
        maxlength="120"
        placeholder="Your name or your workshop’s"
        @keydown.enter="keep"
      />
      <label for="pack-site">Site</label>
      <TextField
        id="pack-site"
        v-model="own.site"
        maxlength="300"
        placeholder="Where you are found"
        @keydown.enter="keep"
      />
      <span>Licence</span>
      <TypedChoice
        v-model="own.licence"
        label="Licence"
        :choices="LICENCES"
        placeholder="Not stated; choose one, or type your own"
      />
      <span>Rack</span>
      <TypedChoice
        v-model="own.rack"
        label="Rack"
        :choices="racks"
        placeholder="Mine; or type whose: a colleague’s, a client’s"
      />
      <span>Tags</span>
      <TagsField v-model="own.card.tags" />
      <label for="pack-notes">Notes</label>
      <TextField id="pack-notes" v-model="own.card.notes" :rows="3" maxlength="4000" />
      <template v-if="covers.length > 0">
        <span>Cover</span>
        <div class="covers" role="radiogroup" aria-label="Cover">
          <PushButton
            v-for="brush in covers"
            :key="brush.id"
            look="face"
            role="radio"
            class="pick"
            :class="{ on: (own.cover ?? covers[0].id) === brush.id }"
            :aria-checked="(own.cover ?? covers[0].id) === brush.id"
            :aria-label="brush.card.name"
            :title="brush.card.name"
            @click="own.cover = brush.id"
          >
            <BrushDisc :brush="brush" :size="44" square />
          </PushButton>
        </div>
      </template>
    </form>
    <template #footer>
      <PushButton @click="open = null">Cancel</PushButton>
      <PushButton look="main" @click="keep">Keep</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 9px 12px;
  align-items: center;
}
.wide {
  grid-column: 2;
}
.covers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-height: 156px;
  padding: 3px;
  overflow-y: auto;
}
.pick {
  border-radius: var(--r);
}
.pick.on {
  box-shadow: 0 0 0 3px var(--act);
}
</style>
