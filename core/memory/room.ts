/**
 * A room: one shared WebAssembly memory that holds a body, its work lists and the pictures stamped onto it, so that
 * compiled loops work in place and other threads look on without a copy.
 *
 * Blocks are taken at multiples of 16 bytes and may be given back; a block given back is used again, first fit.
 * The memory grows as needed. Growing leaves older views valid: they see the same bytes.
 */

const PAGE = 65536;
/** 4 GiB, what 32-bit addresses reach. */
const MOST_PAGES = 65536;
/** Address 0 is never taken, so that it can say "none". */
const FIRST = 1024;

export interface Block {
  at: number;
  bytes: number;
}

export interface Room {
  readonly memory: WebAssembly.Memory;
  /** First address that was never taken. */
  top: number;
  /** Blocks given back, by rising address; neighbours are joined. */
  free: Block[];
}

export class OutOfMemory extends Error {
  readonly code = 'out-of-memory';

  constructor(bytes: number) {
    super(`This needs ${Math.ceil(bytes / 2 ** 20)} MB of memory more than there is.`);
  }
}

/** A room with `bytes` at hand at once. Throws OutOfMemory. */
export function room(bytes = 0): Room {
  const pages = Math.min(MOST_PAGES, Math.ceil((bytes + FIRST) / PAGE));
  if (bytes + FIRST > MOST_PAGES * PAGE) throw new OutOfMemory(bytes);
  try {
    return {
      memory: new WebAssembly.Memory({ initial: pages, maximum: MOST_PAGES, shared: true }),
      top: FIRST,
      free: [],
    };
  } catch {
    throw new OutOfMemory(bytes);
  }
}

/** Takes a block; its bytes are zero only when the block was never used before. Throws OutOfMemory. */
export function allocate(from: Room, bytes: number): Block {
  const size = Math.max(16, Math.ceil(bytes / 16) * 16);
  const index = from.free.findIndex((b) => b.bytes >= size);
  if (index >= 0) {
    const found = from.free[index];
    const block = { at: found.at, bytes: size };
    if (found.bytes === size) from.free.splice(index, 1);
    else from.free[index] = { at: found.at + size, bytes: found.bytes - size };
    return block;
  }
  const block = { at: from.top, bytes: size };
  const end = from.top + size;
  const have = from.memory.buffer.byteLength;
  if (end > have) {
    try {
      from.memory.grow(Math.ceil((end - have) / PAGE));
    } catch {
      throw new OutOfMemory(end - have);
    }
  }
  from.top = end;
  return block;
}

export function giveBack(to: Room, block: Block): void {
  const { free } = to;
  let i = 0;
  while (i < free.length && free[i].at < block.at) i++;
  free.splice(i, 0, { ...block });
  for (const k of [i, i - 1]) {
    const a = free[k];
    const b = free[k + 1];
    if (a && b && a.at + a.bytes === b.at) {
      a.bytes += b.bytes;
      free.splice(k + 1, 1);
    }
  }
}

/** A block as 32-bit words, all zero. */
export function allocateWords(from: Room, count: number): Uint32Array {
  const { at } = allocate(from, count * 4);
  return new Uint32Array(from.memory.buffer, at, count).fill(0);
}

export function allocateFloats(from: Room, count: number): Float32Array {
  const { at } = allocate(from, count * 4);
  return new Float32Array(from.memory.buffer, at, count).fill(0);
}

/** The room's buffer as what it is; it is typed as a plain one where a page's own types are loaded. */
export function sharedBuffer(of: Room): SharedArrayBuffer {
  return of.memory.buffer as unknown as SharedArrayBuffer;
}
