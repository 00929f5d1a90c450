/// <reference types="vite/client" />
/// <reference types="vite-plugin-pwa/client" />
declare module '*.vue' {
  import type { DefineComponent } from 'vue';

  const component: DefineComponent<object, object, unknown>;
  export default component;
}

/** The decoder without the encoder that its package brings along. */
declare module 'draco3d/draco_decoder_nodejs.js' {
  import type { DracoDecoderModule } from 'draco3d';

  const createDecoderModule: DracoDecoderModule;
  export default createDecoderModule;
}

/** Made by scripts/packageList.ts. */
declare module 'virtual:packages' {
  export const version: string;
  export const packages: readonly { name: string; version: string; licence: string }[];
}
