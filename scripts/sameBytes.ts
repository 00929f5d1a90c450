/** Arrays of numbers whose bytes are the same are equal: looked at one by one, a body's would take most of the time. */
type Tester = (a: unknown, b: unknown) => boolean | undefined;

// Its types don't know of it yet.
(expect as unknown as { addEqualityTesters(testers: Tester[]): void }).addEqualityTesters([
  (a: unknown, b: unknown): boolean | undefined => {
    if (!ArrayBuffer.isView(a) || !ArrayBuffer.isView(b) || a.constructor !== b.constructor) return undefined;
    const bytes = (of: ArrayBufferView): Buffer => Buffer.from(of.buffer as ArrayBuffer, of.byteOffset, of.byteLength);
    // Where they differ each number is asked: two bit patterns may stand for one.
    return bytes(a).equals(bytes(b)) ? true : undefined;
  },
]);
