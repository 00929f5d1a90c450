/** What the controls of a cast work on: the slab's cast, or that of a patch. */
import { inject, provide, type InjectionKey } from 'vue';
import type { CastSettings } from '#core/settings';
import type { CastResult, FlatCast } from '../workers/castResult';

export interface CastDesk {
  readonly settings: CastSettings;
  readonly result: CastResult | null;
  readonly flat: FlatCast | null;
  edit(change: (cast: CastSettings) => void): void;
}

const DESK: InjectionKey<CastDesk> = Symbol('cast desk');

export function provideCastDesk(desk: CastDesk): void {
  provide(DESK, desk);
}

export function useCastDesk(): CastDesk {
  return inject(DESK)!;
}
