/** The Tidewrack Wharf set: a made-up harbour for a puppet film. Everything in it is made by running core. */
import { castSlab } from '#core/cast';
import { ringLoss } from '#core/checks';
import { positionsOut } from '#core/mesh';
import { toUint16, usedRange, type Raster } from '#core/picture';
import type { LetterFont } from '#core/lettering';
import {
  ALPHA_VERSION,
  AlphaSchema,
  CastSettingsSchema,
  newBrush,
  SlabSchema,
  SOURCE_VERSION,
  type Alpha,
  type Block,
  type Brush,
  type CastSettings,
  type Lettering,
  type OwnPalette,
  type Pattern,
  type Sheet,
  type Slab,
  type Pack,
} from '#core/settings';
import { alphaForm, type AlphaForm } from '#core/brush';
import type { Hand } from './hand';
import { knotPicture } from './painted/knot';
import { paintBrushes, wharfPalette } from './painted/paintBrushes';
import { paintedBodies } from './painted/paintedBodies';
import { barnacleCrust, LONE, PATCH } from './slabs/barnacleCrust';
import { castLettering, crateMarks, patterns } from './drawn';
import { wharfPacks } from './packs';
import { musselPlank, type DemoBody } from './parts/mussels';
import { fittingBrushes, fittings, type DemoPart } from './parts/parts';
import { printsPage } from './sheets/page';
import { scannedStone, type DemoScan } from './scans/scannedStone';
import { limpetRings } from './slabs/limpetRings';

export const AUTHOR = 'Tidewrack Workshop';
const id = (n: number): string => `d0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export interface DemoSet {
  slabs: { doc: Slab; bytes: Uint8Array }[];
  alphas: { doc: Alpha; bytes: Uint8Array }[];
  brushes: Brush[];
  /** A scanned page, as it would come from a scanner. */
  page: { doc: Sheet; bytes: Uint8Array };
  scan: DemoScan;
  lettering: Lettering;
  patterns: Pattern[];
  parts: DemoPart[];
  bodies: DemoBody[];
  palette: OwnPalette;
  packs: Pack[];
}

/** What the demo can't do without a machine: naming bytes, writing the page as a scanner would, reading fonts. */
export interface DemoMachine {
  /** Names bytes by their SHA-256. */
  hash: (bytes: Uint8Array) => string;
  scan: (page: Raster) => Promise<Uint8Array>;
  fontOf: (block: Block) => Promise<LetterFont>;
  gzip: (bytes: Uint8Array) => Uint8Array;
}

export async function tidewrack(machine: DemoMachine): Promise<DemoSet> {
  const { hash } = machine;
  const crustHand = barnacleCrust(1024);
  const limpetHand = limpetRings(512);
  const patch = { ...PATCH, turn: 0 };
  const crust = slab(id(1), 'Barnacle crust', crustHand, 1024, { frame: patch }, hash);
  const limpet = slab(id(2), 'Limpet rings', limpetHand, 512, {}, hash);
  const lone = { x: LONE.x, y: LONE.y, turn: 0, side: LONE.radius * 2.3 };
  const alphas = [
    cast(id(11), 'Crust, whole', crustHand, crust.doc, { size: 1024, frame: patch }, hash),
    cast(id(12), 'One barnacle', crustHand, crust.doc, { size: 256, frame: lone }, hash),
    cast(id(13), 'Limpet', limpetHand, limpet.doc, { size: 512 }, hash),
  ];
  const page = await printsPage(id(3), AUTHOR, machine);
  const lettering = crateMarks(id(4), AUTHOR);
  const made = [page.cast(id(14), 'Sponge print'), await castLettering(id(15), 'Crate mark', lettering, machine)];
  const knot = knotAlpha(id(18), hash);
  const scan = scannedStone(
    { scan: id(61), patches: [id(62), id(63)], steps: [id(64), id(65)], alphas: [id(16), id(17)] },
    AUTHOR,
    machine,
  );
  const parts = await fittings((n) => id(70 + n), AUTHOR, hash);
  const setters = fittingBrushes(parts, (n) => id(80 + n), AUTHOR);
  const forms = [...alphas, ...made, knot];
  const painters = paintBrushes(id, AUTHOR, { sponge: made[0].doc, barnacle: alphas[1].doc, knot: knot.doc });
  const formOf = (alphaId: string | null): AlphaForm | null => {
    const found = forms.find(({ doc }) => doc.id === alphaId);
    return found ? alphaForm(found.doc, found.bytes.slice().buffer) : null;
  };
  const stamps = brushes([...alphas, ...made, ...scan.alphas].map((a) => a.doc));
  const isMark = ({ card }: Brush): boolean => /crate|chisel|pits/i.test(card.name);
  return {
    slabs: [crust, limpet],
    alphas: forms,
    brushes: [...stamps, ...setters, ...painters],
    parts,
    bodies: [
      musselPlank(id(90), AUTHOR, parts, setters, hash),
      ...paintedBodies((n) => id(91 + n), AUTHOR, painters, { ...machine, formOf }),
    ],
    palette: wharfPalette(id(96), AUTHOR),
    packs: wharfPacks((n) => id(97 + n), AUTHOR, {
      crusts: stamps.filter((brush) => !isMark(brush)),
      marks: stamps.filter(isMark),
      fittings: setters,
      paint: painters,
    }),
    page,
    scan,
    lettering,
    patterns: patterns(AUTHOR, id),
  };
}

/** A mark that was drawn by formula: there is no source to cast it from. */
function knotAlpha(alphaId: string, hash: (bytes: Uint8Array) => string): DemoSet['alphas'][number] {
  const picture = knotPicture(512);
  const bytes = new Uint8Array(toUint16(picture).buffer);
  const doc = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: alphaId,
    size: 512,
    relief: 0.05,
    ground: 0,
    blob: hash(bytes),
    card: { name: 'Rope knot', author: AUTHOR, tags: ['tidewrack', 'mark'] },
    lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.05 },
    report: { marginPx: 30, ringLoss: ringLoss(picture, 1, 0), usedRange: usedRange(picture) },
  });
  return { doc, bytes };
}

function slab(
  slabId: string,
  name: string,
  h: Hand,
  cells: 512 | 1024,
  settings: Partial<CastSettings>,
  hash: (bytes: Uint8Array) => string,
): DemoSet['slabs'][number] {
  const positions = positionsOut(h.mesh);
  const bytes = new Uint8Array(positions.buffer);
  const doc = SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: slabId,
    cells,
    blob: hash(bytes),
    cast: CastSettingsSchema.parse(settings),
    card: { name, author: AUTHOR, tags: ['tidewrack'] },
  });
  return { doc, bytes };
}

function cast(
  alphaId: string,
  name: string,
  h: Hand,
  source: Slab,
  settings: Partial<CastSettings>,
  hash: (bytes: Uint8Array) => string,
): DemoSet['alphas'][number] {
  const used = CastSettingsSchema.parse(settings);
  const made = castSlab(h.mesh, used);
  const bytes = new Uint8Array(toUint16(made.picture).buffer);
  return {
    bytes,
    doc: {
      version: ALPHA_VERSION,
      id: alphaId,
      format: 'grey16',
      size: used.size,
      relief: made.relief,
      ground: made.ground,
      blob: hash(bytes),
      card: { name, author: AUTHOR, tags: ['tidewrack'], notes: '' },
      lineage: {
        sourceId: source.id,
        sourceRevision: 1,
        floor: made.floor,
        crown: made.crown,
        cast: used,
        patchId: null,
        colours: null,
      },
      recipe: null,
      report: {
        marginPx: made.margin.marginPx,
        ringLoss: ringLoss(made.picture, 1, made.ground),
        usedRange: usedRange(made.picture),
        undercut: made.undercut.share,
      },
    },
  };
}

function brushes([crust, barnacle, limpet, sponge, crate, chisel, pits]: Alpha[]): Brush[] {
  const make = (n: number, name: string, alpha: Alpha, tags: string[], change: (b: Brush) => Partial<Brush>): Brush => {
    const brush = newBrush(id(n), name, AUTHOR);
    const formed = {
      ...brush,
      form: { ...brush.form, alphaId: alpha.id, ground: alpha.ground },
      card: { ...brush.card, tags: ['tidewrack', ...tags] },
    };
    return { ...formed, ...change(formed) };
  };
  const touch = (b: Brush, kind: Brush['touch']['falloff']['kind'], hold = 0.8): Brush['touch'] => ({
    ...b.touch,
    overlaps: 'even',
    falloff: { ...b.touch.falloff, kind, hold },
  });
  return [
    make(21, 'Crust, grown', crust, ['crust'], (b) => ({
      touch: touch(b, 'plateau', 0.85),
      stroke: { ...b.stroke, type: 'grow' },
    })),
    make(22, 'Barnacle press', barnacle, ['crust'], (b) => ({
      touch: touch(b, 'full'),
      stroke: { ...b.stroke, type: 'press', size: 0.16 },
    })),
    make(23, 'Barnacle trail', barnacle, ['crust', 'trail'], (b) => ({
      touch: touch(b, 'full'),
      stroke: { ...b.stroke, type: 'trail', size: 0.07, spacing: 85, turnFrom: 'stroke' },
      drift: { ...b.drift, along: 60, across: 90, size: 30 },
    })),
    make(24, 'Limpet press', limpet, ['shell'], (b) => ({
      touch: touch(b, 'plateau', 0.9),
      stroke: { ...b.stroke, type: 'press', size: 0.22 },
    })),
    make(25, 'Sponge trail', sponge, ['print', 'trail'], (b) => ({
      form: { ...b.form, depth: 30 },
      touch: touch(b, 'plateau', 0.7),
      stroke: { ...b.stroke, type: 'trail', size: 0.13, spacing: 60, turnFrom: 'stroke' },
      drift: { ...b.drift, along: 40, across: 60, turn: 25 },
    })),
    make(26, 'Crate mark press', crate, ['lettering'], (b) => ({
      form: { ...b.form, depth: 40 },
      touch: touch(b, 'full'),
      stroke: { ...b.stroke, type: 'press', size: 0.4 },
    })),
    make(27, 'Chisel marks', chisel, ['stone', 'trail'], (b) => ({
      touch: touch(b, 'plateau', 0.6),
      stroke: { ...b.stroke, type: 'trail', mapping: 'wrapped', size: 0.24, spacing: 12 },
      form: { ...b.form, alphaId: chisel.id, ground: chisel.ground, depth: 60 },
    })),
    make(28, 'Sea pits', pits, ['stone'], (b) => ({
      touch: touch(b, 'plateau', 0.8),
      stroke: { ...b.stroke, type: 'trail', size: 0.2, spacing: 70 },
      drift: { ...b.drift, turn: 180, along: 25, across: 25 },
    })),
  ];
}
