<script setup lang="ts">
/** Set forms: laid on the slab, moved and measured, baked into the clay when they are right. */
import { Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import { PART_UPS, PIECE_FORMS, PieceSchema, settingAt, type Piece, type PieceForm } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { undoNotice } from '../controls/undoNotice';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import { useSlabParts } from '../stores/slabParts';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import { usePickFiles } from '../controls/pickFiles';

const bench = useSlabBench();
const tools = useSlabTools();
const LABELS: Record<PieceForm, string> = {
  dome: 'Dome',
  disc: 'Disc',
  ring: 'Ring',
  hex: 'Hex head',
  pin: 'Pin',
  bar: 'Bar',
  wedge: 'Wedge',
  part: 'Part',
};
const parts = useSlabParts();
const labelOf = (piece: Piece): string => piece.part?.name ?? LABELS[piece.form];
const UPS = PART_UPS.map((value) => ({ value, label: value.replace('-', '−').toUpperCase() }));
const chosen = computed(() => bench.pieces.find((p) => p.id === tools.pieceId) ?? null);
const numbers = computed(() => {
  const piece = chosen.value;
  if (!piece) return [];
  const wide = piece.form === 'bar' || piece.form === 'wedge' || piece.form === 'ring';
  const edged = piece.form !== 'dome' && piece.form !== 'pin' && piece.form !== 'part';
  return [
    'size',
    ...(wide ? ['width'] : []),
    'height',
    ...(edged ? ['edge'] : []),
    'turn',
    ...(piece.repeat === 'one' ? [] : ['count', 'pitch']),
  ] as ('size' | 'width' | 'height' | 'edge' | 'turn' | 'count' | 'pitch')[];
});

function add(form: PieceForm): void {
  const first = bench.doc?.cast.frame;
  const piece = PieceSchema.parse({
    id: crypto.randomUUID(),
    form,
    x: first?.x ?? 0,
    y: first?.y ?? 0,
    ...(form === 'pin'
      ? { size: 0.05, height: 0.08 }
      : form === 'bar' || form === 'wedge'
        ? { size: 0.3, width: 30 }
        : {}),
  });
  tools.pieceId = piece.id;
  void bench.editPieces((slab) => slab.pieces.push(piece));
}
const pick = usePickFiles({ accept: '.obj,.ply,.stl,.glb' }, ([file]) => file && void parts.add(file));
function put(change: Partial<Piece>): void {
  void bench.editPieces((slab) => {
    const piece = slab.pieces.find((p) => p.id === tools.pieceId);
    if (piece) Object.assign(piece, change);
  });
}
function remove(piece: Piece): void {
  const kept = { ...piece };
  void bench.editPieces((slab) => {
    slab.pieces = slab.pieces.filter((p) => p.id !== piece.id);
  });
  undoNotice(`${labelOf(piece)} taken off.`, () => bench.editPieces((slab) => slab.pieces.push(kept)));
}
</script>

<template>
  <div class="tab">
    <div class="two">
      <PushButton v-for="form in PIECE_FORMS.filter((f) => f !== 'part')" :key="form" @click="add(form)">
        + {{ LABELS[form] }}
      </PushButton>
      <PushButton
        title="A mesh from an OBJ, PLY, STL or GLB file; it can be dropped on the slab too"
        :disabled="parts.busy"
        @click="pick"
      >
        {{ parts.busy ? 'Reading…' : '+ Part…' }}
      </PushButton>
    </div>
    <p v-if="parts.problem" class="sentence-bad" role="alert">{{ parts.problem }}</p>
    <ul v-if="bench.pieces.length">
      <li v-for="piece in bench.pieces" :key="piece.id" :class="{ on: piece.id === tools.pieceId }">
        <PushButton look="row" :on="piece.id === tools.pieceId" @click="tools.pieceId = piece.id">
          {{ labelOf(piece) }}{{ piece.repeat === 'one' ? '' : ` × ${piece.count}` }}
        </PushButton>
        <ToolButton :icon="Trash2" :label="`Take ${labelOf(piece)} off`" @click="remove(piece)" />
      </li>
    </ul>
    <p v-else class="muted">Lay a form or a part on the slab, drag it into place, and bake it when it is right.</p>
    <template v-if="chosen">
      <ChoiceBar
        label="Raised or sunk"
        :model-value="chosen.set"
        :options="[
          { value: 'raised', label: 'Raised' },
          { value: 'sunk', label: 'Sunk' },
        ]"
        @update:model-value="(v) => put({ set: v })"
      />
      <ChoiceBar
        v-if="chosen.part"
        label="Side that points up"
        :model-value="chosen.part.up"
        :options="UPS"
        @update:model-value="(v) => parts.turnUp(chosen!, v)"
      />
      <SettingSlider
        v-for="key in numbers"
        :key="key"
        :meta="settingAt(PieceSchema, key)"
        :model-value="chosen[key]"
        @update:model-value="(v) => put({ [key]: v })"
      />
      <ChoiceBar
        label="How many"
        :model-value="chosen.repeat"
        :options="[
          { value: 'one', label: 'One' },
          { value: 'row', label: 'Row' },
          { value: 'ring', label: 'Ring' },
        ]"
        @update:model-value="(v) => put({ repeat: v })"
      />
    </template>
    <PushButton v-if="bench.pieces.length" look="main" @click="bench.bakePieces()">
      Bake {{ bench.pieces.length === 1 ? 'it' : `all ${bench.pieces.length}` }} into the clay
    </PushButton>
  </div>
</template>
