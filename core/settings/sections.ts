/** What differs between two states of a source, an alpha or a part, told by its sections. */

const WORDS: Record<string, string> = {
  card: 'name and notes',
  size: 'size',
  relief: 'depth',
  format: 'format',
  ground: 'ground',
  recipe: 'recipe',
  lineage: 'how it was cast',
  cells: 'density',
  mask: 'mask',
  upper: 'finer levels',
  symmetry: 'symmetry',
  setForms: 'set forms',
  references: 'reference pictures',
  cast: 'frame and casting',
  file: 'file',
  find: 'how marks are found',
  paper: 'paper',
  dark: 'ink',
  marks: 'marks',
  cut: 'how marks are cut',
  mesh: 'mesh',
  perBody: 'scale',
  unit: 'unit',
  patches: 'patches',
  blocks: 'words',
  grow: 'growth',
  made: 'what it was captured from',
  whole: 'capture',
  budget: 'budget of faces',
  seat: 'seat',
  millimetres: 'real size',
};
/** Measured, or counted, from the rest. */
export const FOLLOWS: readonly string[] = [
  'version',
  'id',
  'kind',
  'report',
  'history',
  'vertices',
  'triangles',
  'wholeTriangles',
  'error',
];

export function sectionsThatDiffer(before: object, after: object): string[] {
  const [a, b] = [before, after] as Record<string, unknown>[];
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((key) => !FOLLOWS.includes(key));
  return keys.filter((key) => JSON.stringify(a[key]) !== JSON.stringify(b[key])).map((key) => wordFor(key, b));
}

export function wordFor(key: string, doc: Record<string, unknown>): string {
  if (key === 'blob') return doc['kind'] === 'slab' ? 'clay' : 'heights';
  return WORDS[key] ?? key;
}
