/** Packs as one file: what it holds, where, how it is judged before it is taken, and how it meets what is here. */
export * from './manifest';
export { planPack, withoutRecipe, type PackContents, type PackPlan, type PlannedData } from './plan';
export { meshFromGlb, meshToGlb } from './meshGlb';
export {
  entriesOf,
  judgeDocuments,
  judgeEntries,
  keyed,
  MOST_ENTRIES,
  MOST_DATA_BYTES,
  MOST_MANIFEST_BYTES,
  type EntryProblem,
  type Thing,
  type ZipEntry,
} from './judge';
export { alphaKey, brushKey, paletteKey, partKey, sourceKey } from './sameness';
export {
  meet,
  packTaken,
  taking,
  usualChoice,
  type Choice,
  type Here,
  type Existing,
  type Meeting,
  type Taken,
} from './meeting';
export { renamed } from './renamed';
