<script setup lang="ts">
/** The body as it is now, with its pieces: kept under a name, or written as a file. */
import { Save } from '@lucide/vue';
import { ref } from 'vue';
import MeshFileButtons from '../controls/MeshFileButtons.vue';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import { saveFile } from '../controls/saveFile';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { usePartMeshes } from '../stores/partMeshes';
import { useProof } from '../stores/proof';
import type { MeshEnding } from '../workers/meshOut';
import type { PackedOut } from '../workers/meshOut.worker';
import { meshFile } from '../workers/meshOutFile';
import { writtenPiece } from './writtenPiece';
import { usePreferences } from '../stores/preferences';

const proof = useProof();
const meshes = usePartMeshes();
const name = ref('');
const busy = ref(false);
const open = ref(false);

async function doing(act: () => Promise<void>): Promise<void> {
  busy.value = true;
  try {
    await act();
    open.value = false;
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    busy.value = false;
  }
}

const keep = (): Promise<void> =>
  doing(async () => {
    tellNotice(`Kept as “${await proof.keepBody(name.value.trim() || proof.label)}”.`);
    name.value = '';
  });

const download = (ending: MeshEnding): Promise<void> =>
  doing(async () => {
    const mesh = await proof.sculptor.sculpted();
    const texture = ending === 'glb' ? await proof.texturePng() : null;
    const things: PackedOut[] = [
      {
        name: proof.label,
        mesh,
        millimetres: usePreferences().millimetres(),
        up: 'y',
        ...(texture ? { texture } : {}),
      },
    ];
    for (const piece of proof.sculptor.pieces.values()) {
      if (piece.hidden) continue;
      things.push(writtenPiece(piece, await meshes.of(piece.mesh)));
    }
    saveFile(`${proof.label}.${ending}`, await meshFile(ending, things));
  });
</script>

<template>
  <PopMenu v-model:visible="open" placement="top" :width="280">
    <template #reference
      ><ToolButton :icon="Save" label="Keep or download the body" help="Keep the body as it is now, or download it"
    /></template>
    <div class="menu">
      <form class="keep" @submit.prevent="keep">
        <TextField v-model="name" maxlength="74" :placeholder="proof.label" aria-label="Name of the body" />
        <PushButton look="main" native-type="submit" :disabled="busy">Keep</PushButton>
      </form>
      <p class="muted">
        As sculpted<template v-if="proof.state.textureSize"> and painted</template
        ><template v-if="proof.state.pieces">, with its {{ proof.state.pieces }} pieces</template>: a body of your own,
        there after a restart.
      </p>
      <MeshFileButtons :disabled="busy" @write="download" />
    </div>
  </PopMenu>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 8px;
}
.keep {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
}
</style>
