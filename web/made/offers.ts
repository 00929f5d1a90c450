/** Patterns on offer, drawn one after the other. An answer counts for the offer that it was asked for. */
import { shallowRef } from 'vue';
import { PatternSchema, SOURCE_VERSION, type Grow } from '#core/settings';
import type { Recipes } from '../workers/recipes';

export interface Offer {
  id: string;
  grow: Grow;
  /** Null until it is drawn. */
  heights: Float32Array | null;
}

export function useOffers(worker: Pick<Recipes, 'preview' | 'onAnswer'>, side: number) {
  const offers = shallowRef<Offer[]>([]);

  function drawNext(): void {
    const offer = offers.value.find((o) => o.heights === null);
    if (!offer) return;
    const made = PatternSchema.parse({
      version: SOURCE_VERSION,
      kind: 'pattern',
      id: offer.id,
      card: { name: 'Offer' },
      grow: offer.grow,
    });
    worker.preview(
      { base: { kind: 'pattern', sourceId: made.id }, made, others: [] },
      { steps: [], size: side, fullSize: side, tiles: true, chosen: null, through: false },
      side,
    );
  }

  worker.onAnswer = ({ heights }, { made }) => {
    offers.value = offers.value.map((o) => (o.id === made?.id ? { ...o, heights } : o));
    drawNext();
  };

  /** Offers these in place of those that were on offer. */
  function put(grows: readonly Grow[]): void {
    offers.value = grows.map((grow) => ({ id: crypto.randomUUID(), grow, heights: null }));
    drawNext();
  }

  return { offers, put };
}
