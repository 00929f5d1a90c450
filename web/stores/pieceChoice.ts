/** Which pieces are chosen and what hands do with them: it stays while one goes from brush to brush. */
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { GizmoHand } from '../viewport/gizmo';

export const STROKES_ON = ['body', 'chosen', 'all'] as const;
export type StrokesOn = (typeof STROKES_ON)[number];

export const usePieceChoice = defineStore('piece-choice', () => ({
  /** The pointer takes pieces, and draws no strokes. */
  on: ref(false),
  chosen: shallowRef<ReadonlySet<string>>(new Set()),
  /** Handles for moving, turning or sizing freely; null leaves pieces on the surface. */
  handles: ref<GizmoHand | null>(null),
  strokesOn: ref<StrokesOn>('body'),
}));
