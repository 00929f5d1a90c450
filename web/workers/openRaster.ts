/**
 * Paintings as OpenRaster (https://www.openraster.org): mimetype first and stored, stack.xml from the topmost,
 * mergedimage.png, a thumbnail, and each layer as a PNG. It knows no masks, so they are worked into their layers. A
 * layer that others are clipped to is a stack of its own with them, within which they lie atop.
 */
import {
  BlobReader,
  BlobWriter,
  TextReader,
  TextWriter,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { encode } from 'fast-png';
import { XMLParser } from 'fast-xml-parser';
import { BLEND_MODES, type BlendMode } from '#core/colour';
import { flattened, MOST_LAYERS, newLayer, small, type Layer } from '#core/paint';
import { checkSide, pngOf, pngSize, textureOfPng, type ReadPaint } from './paintFiles';

const THUMBNAIL = 256;
const ATOP = 'svg:src-atop';
const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[^\u0020-\uffff]/g, ' ');
const operation = (blend: BlendMode): string => (blend === 'normal' ? 'svg:src-over' : `svg:${blend}`);

export async function oraFile(size: number, layers: readonly Layer[]): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('image/openraster'));
  // First and as it is, so that the kind of the file can be told from its first bytes.
  await zip.add('mimetype', new TextReader('image/openraster'), { level: 0, extendedTimestamp: false });
  const plain = { hidden: false, opacity: 1, blend: 'normal', clipped: false } as const;
  const row = ({ name, opacity, hidden }: Layer, i: number, op: string): string =>
    `<layer name="${escaped(name)}" src="data/layer${i}.png" x="0" y="0" ${seen(opacity, hidden)} composite-op="${op}"/>`;
  const rows: string[] = [];
  for (let i = 0; i < layers.length;) {
    // With nothing below it to show on, what is clipped isn’t seen.
    const base = { ...layers[i], hidden: layers[i].hidden || layers[i].clipped };
    let end = i + 1;
    while (end < layers.length && layers[end].clipped) end++;
    for (let k = i; k < end; k++) {
      const { blend } = layers[k];
      // Atop is a way to blend: what is clipped and blends otherwise is cut to its base here.
      const cut =
        k > i && blend !== 'normal'
          ? [
              { ...base, ...plain },
              { ...layers[k], ...plain, clipped: true },
            ]
          : null;
      const own = cut ? clippedAlone(size, cut) : flattened([{ ...layers[k], ...plain }], size);
      await zip.add(`data/layer${k}.png`, new Uint8ArrayReader(pngOf(own, 16)), { level: 0 });
    }
    if (end === i + 1) rows.push(row(base, i, operation(base.blend)));
    else {
      const above = layers
        .slice(i + 1, end)
        .map((one, k) => row(one, i + 1 + k, one.blend === 'normal' ? ATOP : operation(one.blend)));
      rows.push(
        `<stack name="${escaped(base.name)}" isolation="isolate" ${seen(base.opacity, base.hidden)} composite-op="${operation(base.blend)}">\n` +
          `${[row({ ...base, ...plain }, i, 'svg:src-over'), ...above].reverse().join('\n')}\n</stack>`,
      );
    }
    i = end;
  }
  const stack = `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.3" w="${size}" h="${size}"><stack>\n${rows.reverse().join('\n')}\n</stack></image>\n`;
  await zip.add('stack.xml', new TextReader(stack));
  const all = flattened(layers, size);
  await zip.add('mergedimage.png', new Uint8ArrayReader(pngOf(all, 8)), { level: 0 });
  const side = Math.min(THUMBNAIL, size);
  const data = new Uint8Array(small(all, side));
  const little = encode({ width: side, height: side, data, depth: 8, channels: 4 });
  await zip.add('Thumbnails/thumbnail.png', new Uint8ArrayReader(little), { level: 0 });
  return zip.close();
}

const seen = (opacity: number, hidden: boolean): string =>
  `opacity="${opacity}" visibility="${hidden ? 'hidden' : 'visible'}"`;

/** The upper one where the lower covers, and as much as that does. */
function clippedAlone(size: number, [base, above]: readonly Layer[]) {
  const inverse = new Map(
    [...above.tiles.keys()].map((tile) => [tile, uncovered(base.tiles.get(tile), base.mask?.get(tile))] as const),
  );
  const own = flattened([{ ...above, clipped: false }], size);
  return flattened([{ ...above, clipped: false, tiles: own.tiles, mask: inverse }], size);
}

/** Of a mask that hides what the words don’t cover. */
function uncovered(words: Uint16Array | undefined, mask: Uint16Array | undefined): Uint16Array {
  const out = new Uint16Array(words?.length ?? 64 * 64 * 4);
  for (let i = 3; i < out.length; i += 4) {
    const cover = (words?.[i] ?? 0) * (1 - (mask?.[i] ?? 0) / 65_535);
    out[i] = 65_535 - Math.round(cover);
  }
  return out;
}

/** Entries of an archive are at most this many bytes together. */
const MOST_BYTES = 2 ** 31;
const MOST_DEPTH = 16;

/** Throws a sentence where it isn’t OpenRaster, or holds more than a texture may. */
export async function readOra(name: string, file: Blob): Promise<ReadPaint> {
  const zip = new ZipReader(new BlobReader(file));
  const entries = await zip.getEntries().catch(() => {
    throw new Error(`“${name}” can’t be read as OpenRaster: it is broken or cut short.`);
  });
  if (entries.reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0) > MOST_BYTES)
    throw new Error(`“${name}” unpacks to more than two gigabytes.`);
  const find = (path: string) => entries.find((entry) => entry.filename === path && !entry.directory);
  const stack = find('stack.xml');
  if (!stack || stack.directory || stack.uncompressedSize > 2 ** 20)
    throw new Error(`“${name}” isn’t an OpenRaster file: it has no stack.xml.`);
  const image = childOf(nodesOf(await stack.getData(new TextWriter())), 'image');
  const size = checkSide(name, Number(image?.says.w), Number(image?.says.h));
  const notes: string[] = [];
  const found = layersIn(image?.inside ?? [], notes);
  if (found.length === 0) throw new Error(`“${name}” has no layers.`);
  if (found.length > MOST_LAYERS)
    throw new Error(`“${name}” has ${found.length} layers; at most ${MOST_LAYERS} can be opened.`);
  const layers: Layer[] = [];
  for (const [i, { says: one, ...more }] of found.reverse().entries()) {
    const entry = one.src === undefined ? undefined : find(one.src);
    const title = one.name ?? `Layer ${i + 1}`;
    if (!entry || entry.directory) {
      notes.push(`The picture of “${title}” is missing; the layer is empty.`);
      layers.push(newLayer(`ora-${i}`, title));
      continue;
    }
    const bytes = await entry.getData(new Uint8ArrayWriter()).catch(() => {
      throw new Error(`“${name}”: the picture of “${title}” is broken.`);
    });
    if (pngSize(bytes)?.some((side) => side !== size) || Number(one.x ?? 0) !== 0 || Number(one.y ?? 0) !== 0)
      throw new Error(`“${name}”: “${title}” doesn’t cover the whole texture.`);
    layers.push({
      ...newLayer(`ora-${i}`, title.slice(0, 80)),
      tiles: textureOfPng(title, bytes).tiles,
      ...more,
      blend: blendOf(more.operation, title, notes),
    });
  }
  return { size, layers, notes };
}

function blendOf(operation: string, title: string, notes: string[]): BlendMode {
  const mode = operation.replace(/^svg:/, '').replace(/^src-(over|atop)$/, 'normal');
  if ((BLEND_MODES as readonly string[]).includes(mode)) return mode as BlendMode;
  notes.push(`“${title}” blends by ${mode}, which isn’t known; it is Normal here.`);
  return 'normal';
}

interface Node {
  tag: string;
  says: Partial<Record<string, string>>;
  inside: Node[];
}

function nodesOf(xml: string): Node[] {
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', preserveOrder: true });
  type Raw = Record<string, unknown> & { ':@'?: Record<string, string> };
  const nodes = (all: Raw[]): Node[] =>
    all.flatMap((raw) => {
      const tag = Object.keys(raw).find((key) => key !== ':@' && !key.startsWith('#') && !key.startsWith('?'));
      return tag === undefined ? [] : [{ tag, says: raw[':@'] ?? {}, inside: nodes(raw[tag] as Raw[]) }];
    });
  return nodes(parser.parse(xml) as Raw[]);
}

const childOf = (nodes: readonly Node[], tag: string): Node | undefined => nodes.find((node) => node.tag === tag);

interface Found {
  says: Node['says'];
  opacity: number;
  hidden: boolean;
  clipped: boolean;
  operation: string;
}

/**
 * Layers from the topmost, those of stacks among them. What a stack says of all of it goes to each of its layers; where
 * some lie atop the lowest, it goes to that one alone, which they are clipped to.
 */
function layersIn(nodes: readonly Node[], notes: string[], depth = 0): Found[] {
  if (depth > MOST_DEPTH) return [];
  return nodes.flatMap((node) => {
    const { says } = node;
    const opacity = shareOf(says.opacity);
    const hidden = says.visibility === 'hidden';
    const operation = says['composite-op'] ?? 'svg:src-over';
    if (node.tag === 'layer') return [{ says, opacity, hidden, operation, clipped: operation === ATOP }];
    if (node.tag !== 'stack') return [];
    const inside = layersIn(node.inside, notes, depth + 1);
    const base = inside.at(-1);
    const above = inside.slice(0, -1);
    if (base && says.isolation === 'isolate' && above.some(({ clipped }) => clipped))
      return [
        ...above.map((one) => ({ ...one, clipped: true })),
        { ...base, opacity: base.opacity * opacity, hidden: base.hidden || hidden, operation },
      ];
    if (operation !== 'svg:src-over') notes.push('A group that blends as a whole came in as its layers.');
    return spread(inside, opacity, hidden);
  });
}

const spread = (layers: readonly Found[], opacity: number, hidden: boolean): Found[] =>
  layers.map((one) => ({ ...one, opacity: one.opacity * opacity, hidden: one.hidden || hidden }));

function shareOf(text: string | undefined): number {
  const share = Number(text ?? 1);
  return share >= 0 && share <= 1 ? share : 1;
}
