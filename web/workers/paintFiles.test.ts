import { BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import {
  edited,
  flattened,
  FULL,
  newLayer,
  Painting,
  resized,
  TILE_WORDS,
  touchTile,
  wordAt,
  type Layer,
  type Texture,
} from '#core/paint';
import { seeded } from '#core/random';
import { oraFile, readOra } from './openRaster';
import { paintFile, textureOfPng, wordsOf } from './paintFiles';
import { textureOfExr, textureOfTiff } from './paintPictures';

/** Some tiles of colours and covers by chance. */
function layer(seed: number, id = `l${seed}`): Layer {
  const random = seeded(seed);
  const out = newLayer(id, `Layer “${seed}” & more`);
  for (let n = 0; n < 4; n++) {
    const words = touchTile({ size: 512, tiles: out.tiles }, Math.floor(random() * 64));
    for (let i = 0; i < TILE_WORDS; i += 4) {
      const alpha = i % 3 === 0 ? FULL : Math.floor(random() * FULL);
      for (let k = 0; k < 3; k++) words[i + k] = Math.floor(random() * alpha);
      words[i + 3] = alpha;
    }
  }
  return out;
}
const textureOf = ({ tiles }: Layer): Texture => ({ size: 512, tiles });
/** How far two pictures are apart at most, where they cover. */
function apart(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i < a.length; i++) {
    // Where little covers a colour is told by few steps.
    const alpha = a[i | 3]!;
    if (alpha > 2000 || i % 4 === 3)
      most = Math.max(most, (Math.abs(a[i]! - b[i]!) * (i % 4 === 3 ? FULL : alpha)) / FULL);
  }
  return most;
}

test('a texture comes back from a PNG of 16 bits, and another reader finds the same in it', async () => {
  const texture = textureOf(layer(3));
  const file = await paintFile('png16', texture);
  expect(apart(wordsOf(texture), wordsOf(textureOfPng('a.png', file)))).toBeLessThan(12);
  const { data, info } = await sharp(file)
    .pipelineColourspace('rgb16')
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.channels]).toEqual([512, 4]);
  expect(apart(wordsOf(texture), new Uint16Array(data.buffer, data.byteOffset, data.length / 2))).toBe(0);
  const small = await sharp(await paintFile('png8', texture))
    .raw()
    .toBuffer();
  const words = wordsOf(texture);
  expect(small.every((byte, i) => byte === Math.round(words[i]! / 257))).toBe(true);
});

test('TIFF and EXR hold light times cover, as another reader finds', async () => {
  const texture = textureOf(layer(5));
  const [tile, own] = [...texture.tiles][0]!;
  const place = (tile % 8) * 64 + Math.floor(tile / 8) * 64 * 512;
  const { data } = await sharp(await paintFile('tiff', texture))
    .pipelineColourspace('scrgb')
    .toColourspace('scrgb')
    .raw({ depth: 'float' })
    .toBuffer({ resolveWithObject: true });
  const floats = new Float32Array(data.buffer, data.byteOffset, data.length / 4);
  expect(floats.length).toBe(512 * 512 * 4);
  for (const k of [0, 1, 2, 3]) expect(floats[place * 4 + k]).toBeCloseTo(own[wordAt(0, 0) + k]! / FULL, 3);
  const exr = await paintFile('exr', texture);
  expect([...exr.subarray(0, 4)]).toEqual([0x76, 0x2f, 0x31, 0x01]);
});

test('TIFF and EXR of our own come back as they were', async () => {
  const texture = textureOf(layer(7));
  const words = wordsOf(texture);
  expect(apart(words, wordsOf(textureOfTiff('a.tiff', await paintFile('tiff', texture))))).toBeLessThan(12);
  expect(apart(words, wordsOf(textureOfExr('a.exr', await paintFile('exr', texture))))).toBeLessThan(12);
});

test.each([
  ['8 bits', 'uchar', 'rgb', 3],
  ['16 bits', 'ushort', 'rgb16', 3],
  ['16 bits and cover', 'ushort', 'rgb16', 4],
  ['grey', 'uchar', 'b-w', 1],
] as const)('a TIFF of another writer is read, %s', async (_, depth, space, channels) => {
  const data = Uint8Array.from({ length: 512 * 512 * channels }, (_, i) => (i * 37) % 256);
  const raw = { width: 512, height: 512, channels } as const;
  let made = sharp(data, { raw });
  if (depth === 'ushort') made = made.toColourspace(space);
  const file = new Uint8Array(await made.tiff({ compression: 'lzw' }).toBuffer());
  const words = wordsOf(textureOfTiff('a.tiff', file));
  for (let pixel = 0; pixel < 512 * 512; pixel += 977) {
    const alpha = channels === 4 ? data[pixel * 4 + 3]! : 255;
    expect(Math.abs(words[pixel * 4 + 3]! / 257 - alpha)).toBeLessThan(1);
    if (alpha > 20)
      for (let k = 0; k < 3; k++)
        expect(Math.abs(words[pixel * 4 + k]! / 257 - data[pixel * channels + (channels === 1 ? 0 : k)]!)).toBeLessThan(
          1.5,
        );
  }
});

test('a TIFF or EXR that can’t be a texture is refused with a sentence', async () => {
  const texture = textureOf(layer(7));
  const [tiff, exr] = [await paintFile('tiff', texture), await paintFile('exr', texture)];
  const oblong = await sharp({ create: { width: 512, height: 256, channels: 3, background: 'red' } })
    .tiff()
    .toBuffer();
  expect(() => textureOfTiff('a.tiff', new Uint8Array(oblong))).toThrow('a texture is square');
  const inks = await sharp({ create: { width: 512, height: 512, channels: 3, background: 'red' } })
    .toColourspace('cmyk')
    .tiff()
    .toBuffer();
  expect(() => textureOfTiff('b.tiff', new Uint8Array(inks))).toThrow('Save it as RGB');
  for (const part of [0.001, 0.3, 0.9]) {
    expect(() => textureOfTiff('c.tiff', tiff.slice(0, tiff.length * part))).toThrow('broken');
    expect(() => textureOfExr('d.exr', exr.slice(0, exr.length * part))).toThrow('broken');
  }
});

test('an OpenRaster file comes back layer by layer, and is a sound archive to another reader', async () => {
  const layers: Layer[] = [
    layer(1),
    { ...layer(2), blend: 'multiply', opacity: 0.5 },
    { ...layer(4), hidden: true, blend: 'soft-light' },
  ];
  const file = await oraFile(512, layers);
  const { size, layers: read, notes } = await readOra('a.ora', file);
  expect([size, notes]).toEqual([512, []]);
  expect(read.map(({ name, blend, opacity, hidden }) => [name, blend, opacity, hidden])).toEqual(
    layers.map(({ name, blend, opacity, hidden }) => [name, blend, opacity, hidden]),
  );
  read.forEach((one, i) => expect(apart(wordsOf(textureOf(layers[i]!)), wordsOf(textureOf(one)))).toBeLessThan(12));
  const bytes = Buffer.from(await file.arrayBuffer());
  expect(bytes.subarray(30, 54).toString()).toBe('mimetypeimage/openraster');
  const listed = Object.keys(unzipSync(bytes));
  expect(listed.slice(0, 2)).toEqual(['mimetype', 'data/layer0.png']);
  expect(listed).toContain('Thumbnails/thumbnail.png');
});

test('what is clipped comes back clipped, under the same base, which keeps how it lies', async () => {
  const ground: Layer = { ...newLayer('g', 'Ground'), tiles: new Map(layer(9).tiles) };
  const base: Layer = { ...layer(1), opacity: 0.7, blend: 'multiply' };
  const layers: Layer[] = [
    ground,
    base,
    { ...layer(2), clipped: true },
    { ...layer(4), clipped: true, opacity: 0.4 },
    layer(5),
  ];
  const { layers: read, notes } = await readOra('a.ora', await oraFile(512, layers));
  expect(notes).toEqual([]);
  expect(read.map(({ name, clipped, opacity, blend }) => [name, clipped, opacity, blend])).toEqual(
    layers.map(({ name, clipped, opacity, blend }) => [name, clipped, opacity, blend]),
  );
  // What is clipped and blends otherwise is cut to its base, and looks the same.
  const mixed = [ground, { ...layer(1) }, { ...layer(2), clipped: true, blend: 'screen' as const }];
  const back = (await readOra('b.ora', await oraFile(512, mixed))).layers;
  expect(back.map(({ blend, clipped }) => [blend, clipped])).toEqual([
    ['normal', false],
    ['normal', false],
    ['screen', false],
  ]);
  expect(apart(wordsOf(flattened(mixed, 512)), wordsOf(flattened(back, 512)))).toBeLessThan(200);
});

test('what can’t be a texture is refused with a sentence, before it is unpacked', async () => {
  const png = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 4, background: 'red' } })
      .png()
      .toBuffer();
  expect(() => textureOfPng('a.png', new Uint8Array([1, 2, 3]))).toThrow('isn’t a PNG');
  const huge = new Uint8Array(await png(512, 512));
  new DataView(huge.buffer, huge.byteOffset).setUint32(16, 16_384);
  new DataView(huge.buffer, huge.byteOffset).setUint32(20, 16_384);
  expect(() => textureOfPng('huge.png', huge)).toThrow('16384 × 16384 pixels; a texture has at most 8192');
  expect(() => textureOfPng('a.png', huge.subarray(0, 20))).toThrow('isn’t a PNG');
  const oblong = new Uint8Array(await png(512, 256));
  expect(() => textureOfPng('b.png', oblong)).toThrow('a texture is square');
  const odd = new Uint8Array(await png(500, 500));
  expect(() => textureOfPng('c.png', odd)).toThrow('a texture is 512, 1024');
  const cut = new Uint8Array(await png(512, 512));
  expect(() => textureOfPng('d.png', cut.subarray(0, cut.length - 40))).toThrow('broken or cut short');
  await expect(readOra('e.ora', new Blob([new Uint8Array(90)]))).rejects.toThrow('broken or cut short');
});

test('an OpenRaster file that lacks what it names, or blends in an unknown way, says so and keeps the rest', async () => {
  const made = async (stack: string, more: Record<string, Uint8Array> = {}): Promise<Blob> => {
    const zip = new ZipWriter(new BlobWriter());
    await zip.add('stack.xml', new TextReader(stack));
    for (const [path, bytes] of Object.entries(more)) await zip.add(path, new Uint8ArrayReader(bytes));
    return zip.close();
  };
  const own = await paintFile('png8', textureOf(layer(6)));
  const stack = (inner: string, w = 512) => `<image w="${w}" h="${w}"><stack>${inner}</stack></image>`;
  const { layers, notes } = await readOra(
    'a.ora',
    await made(
      stack(
        '<stack><layer name="Top" src="data/a.png" composite-op="svg:plus"/></stack><layer name="Gone" src="data/b.png"/>',
      ),
      { 'data/a.png': own },
    ),
  );
  expect(layers.map(({ name, blend, tiles }) => [name, blend, tiles.size > 0])).toEqual([
    ['Gone', 'normal', false],
    ['Top', 'normal', true],
  ]);
  expect(notes.join(' ')).toContain('“Gone” is missing');
  expect(notes.join(' ')).toContain('blends by plus');
  await expect(readOra('b.ora', await made(stack('<layer/>', 16_384)))).rejects.toThrow('at most 8192');
  await expect(readOra('c.ora', await made(stack('')))).rejects.toThrow('no layers');
  await expect(
    readOra('d.ora', await made(stack('<layer src="data/a.png" x="5"/>'), { 'data/a.png': own })),
  ).rejects.toThrow('doesn’t cover the whole');
});

test('at another size a texture looks the same: averages are averages, and there and back it is itself', () => {
  const one = newLayer('a', 'A');
  for (let tile = 0; tile < 64; tile++) one.tiles.set(tile, new Uint16Array(TILE_WORDS).fill(30_000));
  const large = resized(textureOf(one), 1024);
  expect([...large.tiles.values()].every((words) => words.every((word) => word === 30_000))).toBe(true);
  expect(resized(large, 512)).toEqual(textureOf(one));
  const painting = new Painting(512);
  painting.arrange(edited(painting.layers, { kind: 'bring', id: '', layers: [layer(8)] }));
  expect(flattened(painting.layers, 512).tiles.size).toBeGreaterThan(0);
});
