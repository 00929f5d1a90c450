/** For the default of a switch over a union: the compiler says where a kind that was added has no case yet. */
export function exhausted(kind: never): never {
  throw new Error(`There is no case for “${String(kind)}”.`);
}
