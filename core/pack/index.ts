/** Packs: the order of their brushes, names of many, and what lies where when they are written as folders. */
export { withBrushes, withoutBrushes, withoutGroup, type Place } from './order';
export { brushLike, type Stamped } from './brushLike';
export { NAME_FIELDS, namesByPattern, type Named } from './names';
export { sharePage, type SharedBrush, type SharedPack } from './sharePage';
export { fileNameOf, Names } from './fileNames';
export {
  packFolder,
  type FolderAlpha,
  type FolderBrush,
  type FolderContent,
  type FolderEntry,
  type FolderPack,
} from './folder';
