/** The kinds of document that are kept: their schemas, versions, heads, and what must exist before one is saved. */
import {
  ALPHA_MIGRATIONS,
  ALPHA_VERSION,
  AlphaSchema,
  BELT_VERSION,
  BeltSchema,
  BODY_MIGRATIONS,
  BODY_VERSION,
  BRUSH_MIGRATIONS,
  BRUSH_VERSION,
  BrushSchema,
  OwnBodySchema,
  PACK_VERSION,
  PackSchema,
  PALETTE_VERSION,
  PaletteSchema,
  PART_VERSION,
  PartSchema,
  readDocument,
  referencesOfAlpha,
  referencesOfBelt,
  referencesOfBody,
  referencesOfBrush,
  referencesOfPack,
  referencesOfPart,
  referencesOfSource,
  SOURCE_MIGRATIONS,
  SOURCE_VERSION,
  SourceSchema,
  type Alpha,
  type Belt,
  type Brush,
  type OwnBody,
  type OwnPalette,
  type Pack,
  type Part,
  type ReadResult,
  type References,
  type Source,
} from '#core/settings';
import { OwnTrialSchema, TRIAL_VERSION, type OwnTrial } from '#core/trial';
import {
  AlphaHeadSchema,
  BeltHeadSchema,
  BodyHeadSchema,
  BrushHeadSchema,
  headOfBody,
  headOfSource,
  headOfTrial,
  PackHeadSchema,
  PaletteHeadSchema,
  PartHeadSchema,
  SourceHeadSchema,
  TrialHeadSchema,
  type AlphaHead,
  type BeltHead,
  type BodyHead,
  type BrushHead,
  type PackHead,
  type PaletteHead,
  type PartHead,
  type SourceHead,
  type TrialHead,
} from './heads';

export interface Documents {
  brushes: Brush;
  alphas: Alpha;
  sources: Source;
  belts: Belt;
  bodies: OwnBody;
  packs: Pack;
  parts: Part;
  palettes: OwnPalette;
  trials: OwnTrial;
}
export interface Heads {
  brushes: BrushHead;
  alphas: AlphaHead;
  sources: SourceHead;
  belts: BeltHead;
  bodies: BodyHead;
  packs: PackHead;
  parts: PartHead;
  palettes: PaletteHead;
  trials: TrialHead;
}
export type Collection = keyof Documents;
export const COLLECTIONS = [
  'brushes',
  'alphas',
  'sources',
  'belts',
  'bodies',
  'packs',
  'parts',
  'palettes',
  'trials',
] as const satisfies readonly Collection[];

export const SCHEMAS = {
  brushes: BrushSchema,
  alphas: AlphaSchema,
  sources: SourceSchema,
  belts: BeltSchema,
  bodies: OwnBodySchema,
  packs: PackSchema,
  parts: PartSchema,
  palettes: PaletteSchema,
  trials: OwnTrialSchema,
} as const;
export const HEAD_SCHEMAS = {
  brushes: BrushHeadSchema,
  alphas: AlphaHeadSchema,
  sources: SourceHeadSchema,
  belts: BeltHeadSchema,
  bodies: BodyHeadSchema,
  packs: PackHeadSchema,
  parts: PartHeadSchema,
  palettes: PaletteHeadSchema,
  trials: TrialHeadSchema,
} as const;

/** A document as it is kept. */
export interface StoredDocument<C extends Collection> {
  doc: Documents[C];
  revision: number;
  base: boolean;
  updatedAt: string;
}

/** A document as a list has it. */
export type Listed<C extends Collection> = Heads[C] & Pick<StoredDocument<C>, 'revision' | 'base' | 'updatedAt'>;

/** What one document of the collection is called in a sentence. */
export const SINGULAR: Record<Collection, string> = {
  brushes: 'brush',
  alphas: 'alpha',
  sources: 'source',
  belts: 'belt',
  bodies: 'body',
  packs: 'pack',
  parts: 'part',
  palettes: 'palette',
  trials: 'set of test strokes',
};

const READERS: { [C in Collection]: (doc: unknown) => ReadResult<Documents[C]> } = {
  brushes: (doc) => readDocument('brush', BrushSchema, BRUSH_VERSION, doc, BRUSH_MIGRATIONS),
  alphas: (doc) => readDocument('alpha', AlphaSchema, ALPHA_VERSION, doc, ALPHA_MIGRATIONS),
  sources: (doc) => readDocument('source', SourceSchema, SOURCE_VERSION, doc, SOURCE_MIGRATIONS),
  belts: (doc) => readDocument('belt', BeltSchema, BELT_VERSION, doc),
  bodies: (doc) => readDocument('body', OwnBodySchema, BODY_VERSION, doc, BODY_MIGRATIONS),
  packs: (doc) => readDocument('pack', PackSchema, PACK_VERSION, doc),
  parts: (doc) => readDocument('part', PartSchema, PART_VERSION, doc),
  palettes: (doc) => readDocument('palette', PaletteSchema, PALETTE_VERSION, doc),
  trials: (doc) => readDocument('set of test strokes', OwnTrialSchema, TRIAL_VERSION, doc),
};

/** Of whatever version; a sentence where it is broken or newer than this program. */
export function readStored<C extends Collection>(collection: C, doc: unknown): ReadResult<Documents[C]> {
  return READERS[collection](doc);
}

export function headOf<C extends Collection>(collection: C, doc: Documents[C]): Heads[C] {
  const head = (): Heads[Collection] => {
    switch (collection) {
      case 'sources':
        return headOfSource(doc as Source);
      case 'bodies':
        return headOfBody(doc as OwnBody);
      case 'trials':
        return headOfTrial(doc as OwnTrial);
      default:
        return HEAD_SCHEMAS[collection].parse(doc);
    }
  };
  return head() as Heads[C];
}

export function listedOf<C extends Collection>(
  collection: C,
  { doc, revision, base, updatedAt }: StoredDocument<C>,
): Listed<C> {
  return { ...headOf(collection, doc), revision, base, updatedAt };
}

/** What the table's `kind` column says of a document. */
export function kindOf(collection: Collection, doc: Documents[Collection]): string {
  switch (collection) {
    case 'brushes':
      return (doc as Brush).touch.action;
    case 'alphas':
      return (doc as Alpha).format;
    case 'sources':
      return (doc as Source).kind;
    case 'belts':
      return 'belt';
    case 'bodies':
      return 'mesh';
    case 'packs':
      return 'pack';
    case 'parts':
      return (doc as Part).made.from;
    case 'palettes':
      return 'palette';
    case 'trials':
      return (doc as OwnTrial).body;
  }
}

/** Everything that a document names. */
export function referencesOf(collection: Collection, doc: Documents[Collection]): References {
  switch (collection) {
    case 'brushes':
      return referencesOfBrush(doc as Brush);
    case 'alphas':
      return referencesOfAlpha(doc as Alpha);
    case 'sources':
      return referencesOfSource(doc as Source);
    case 'belts':
      return referencesOfBelt(doc as Belt);
    case 'bodies':
      return referencesOfBody(doc as OwnBody);
    case 'packs':
      return referencesOfPack(doc as Pack);
    case 'parts':
      return referencesOfPart(doc as Part);
    case 'palettes':
    case 'trials':
      return { blobs: [], documents: [] };
  }
}
