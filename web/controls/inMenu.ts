import type { InjectionKey } from 'vue';

/** Said to what stands inside a menu that closes when something beside it is pressed. */
export const IN_MENU: InjectionKey<boolean> = Symbol('in a menu');
