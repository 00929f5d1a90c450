/** What the tests ask of the glTF validator, which ships no types. */
declare module 'gltf-validator' {
  export function validateBytes(
    bytes: Uint8Array,
  ): Promise<{ issues: { numErrors: number; numWarnings: number; messages: { message: string; pointer: string }[] } }>;
}
