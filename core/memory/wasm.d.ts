/** The part of WebAssembly that core uses; core is typed without a browser. */
declare namespace WebAssembly {
  interface MemoryDescriptor {
    initial: number;
    maximum?: number;
    shared?: boolean;
  }
  class Memory {
    constructor(descriptor: MemoryDescriptor);
    readonly buffer: SharedArrayBuffer;
    grow(pages: number): number;
  }
  class Module {
    constructor(bytes: Uint8Array<ArrayBuffer>);
  }
  class Instance {
    constructor(module: Module, imports: Record<string, Record<string, unknown>>);
    readonly exports: Record<string, unknown>;
  }
}
declare function atob(text: string): string;
