import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { writeExr, writeTiff } from '#core/formats';
import { crc32 } from 'node:zlib';
import { decodePicture, type Decoded } from './decode';
import { previewOf, readWindow } from './window';

const W = 60;
const H = 40;
const squeeze = (bytes: Uint8Array): Promise<Uint8Array> => Promise.resolve(deflateSync(bytes));
const deep = (channels: 1 | 3): Uint16Array =>
  Uint16Array.from({ length: W * H * channels }, (_, i) => (i * 7919) % 65536);
const plain = (background = '#3366cc') => sharp({ create: { width: W, height: H, channels: 3, background } });
const ramp = Float32Array.from({ length: W * H }, (_, i) => i / (W * H));

describe('kinds of picture', () => {
  test.each([
    [1, 'grey16'],
    [3, 'rgb16'],
  ] as const)('16 bits of %p planes come in as they are', async (channels, space) => {
    const greys = deep(channels);
    const png = await sharp(greys, { raw: { width: W, height: H, channels } })
      .pipelineColourspace(space)
      .toColourspace(space)
      .png()
      .toBuffer();
    const read = await decodePicture(png, 'deep.png');
    expect([read.width, read.height, read.channels, read.what]).toEqual([W, H, channels, 'PNG, 16 bit']);
    expect(
      Buffer.from(read.data.buffer, read.data.byteOffset, read.data.byteLength).equals(Buffer.from(greys.buffer)),
    ).toBe(true);
  });

  test('palette, one bit, CMYK, WebP and TIFF', async () => {
    const first = async (bytes: Buffer): Promise<number[]> => {
      const read = await decodePicture(bytes, 'x');
      return [...read.data.slice(0, 3)];
    };
    expect(await first(await plain('#cc3333').png({ palette: true, colours: 4 }).toBuffer())).toEqual([204, 51, 51]);
    expect(
      (await decodePicture(await plain('#ffffff').png({ palette: true, colours: 2 }).toBuffer(), 'x')).data[0],
    ).toBe(255);
    const cmyk = await decodePicture(await plain().toColourspace('cmyk').jpeg().toBuffer(), 'x');
    expect(cmyk.what).toBe('JPEG, 8 bit, CMYK');
    expect(cmyk.channels).toBe(3);
    expect(cmyk.data[2]).toBeGreaterThan(cmyk.data[0]);
    for (const bytes of [await plain().webp({ lossless: true }).toBuffer(), await plain().tiff().toBuffer()]) {
      // One step of 255 may be lost to the compression.
      (await first(bytes)).forEach((v, k) => expect(Math.abs(v - [51, 102, 204][k])).toBeLessThanOrEqual(1));
    }
  });

  test('a photograph is turned the way the camera was held', async () => {
    const read = await decodePicture(await plain().jpeg().withMetadata({ orientation: 6 }).toBuffer(), 'turned.jpg');
    expect([read.width, read.height]).toEqual([H, W]);
  });

  test('what is transparent lies on white under dark marks, on black under light ones', async () => {
    const corner = async (fill: string): Promise<number> => {
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect x="20" y="10" width="20" height="20" fill="${fill}"/></svg>`;
      return (await decodePicture(await sharp(Buffer.from(svg)).png().toBuffer(), 'x.png')).data[0];
    };
    expect(await corner('#111111')).toBe(255);
    expect(await corner('#eeeeee')).toBe(0);
  });

  test('floats of TIFF and EXR, and drawings', async () => {
    for (const bytes of [
      await writeTiff(W, H, ramp, squeeze),
      await writeExr({ width: W, height: H, channels: { Y: ramp } }, squeeze),
    ]) {
      const read = await decodePicture(bytes, 'floats');
      expect(read.data).toBeInstanceOf(Float32Array);
      expect(read.data[read.channels * (W * 3 + 7)]).toBeCloseTo((W * 3 + 7) / (W * H), 4);
    }
    const svg = await decodePicture(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><circle cx="30" cy="20" r="9"/></svg>',
      ),
      'x.svg',
    );
    expect(Math.max(svg.width, svg.height)).toBe(4096);
    const far = await decodePicture(
      Buffer.from(
        '<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90000 45000"><rect width="45000" height="45000"/></svg>',
      ),
      'far.svg',
    );
    expect([far.width, far.height]).toEqual([4096, 2048]);
  });

  test('floats beyond 0 and 1 are brought into it, what is no number becomes the lowest', async () => {
    const wild = ramp.map((v, i) => (i === 5 ? NaN : v * 40 - 10));
    const { data } = await decodePicture(await writeTiff(W, H, wild, squeeze), 'wild.tiff');
    expect(Math.min(...data)).toBe(0);
    expect(Math.max(...data)).toBeCloseTo(1, 5);
  });
});

/** An uncompressed TIFF, so many samples of one kind a pixel, little-endian. */
function rawTiff(
  samples: ArrayBufferView,
  {
    width,
    height,
    bits,
    format,
    planes = 1,
    cover = false,
  }: Record<'width' | 'height' | 'bits' | 'format', number> & { planes?: number; cover?: boolean },
): Uint8Array {
  const data = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
  const many = (value: number): number[] => Array<number>(planes).fill(value);
  const colours = planes - (cover ? 1 : 0);
  const tags: [number, number, number[]][] = [
    [256, 4, [width]],
    [257, 4, [height]],
    [258, 3, many(bits)],
    [259, 3, [1]],
    [262, 3, [colours === 3 ? 2 : 1]],
    [273, 4, [8]],
    [277, 3, [planes]],
    [278, 4, [height]],
    [279, 4, [data.length]],
    ...(cover ? [[338, 3, [2]] as [number, number, number[]]] : []),
    [339, 3, many(format)],
  ];
  const ifd = 8 + data.length;
  let spare = ifd + 2 + tags.length * 12 + 4;
  const out = Buffer.alloc(spare + 64);
  out.write('II*\0', 'latin1');
  out.writeUInt32LE(ifd, 4);
  data.copy(out, 8);
  out.writeUInt16LE(tags.length, ifd);
  tags.forEach(([tag, type, values], i) => {
    const at = ifd + 2 + i * 12;
    out.writeUInt16LE(tag, at);
    out.writeUInt16LE(type, at + 2);
    out.writeUInt32LE(values.length, at + 4);
    if (type === 4) out.writeUInt32LE(values[0], at + 8);
    else if (values.length <= 2) values.forEach((v, k) => out.writeUInt16LE(v, at + 8 + k * 2));
    else {
      out.writeUInt32LE(spare, at + 8);
      values.forEach((v, k) => out.writeUInt16LE(v, spare + k * 2));
      spare += values.length * 2;
    }
  });
  return out;
}

/** The same PNG with a grey profile of gamma 1.8 in it. */
function withGreyProfile(png: Uint8Array): Uint8Array {
  const tags: [string, Buffer][] = [
    [
      'desc',
      Buffer.concat([Buffer.from('desc\0\0\0\0'), Buffer.from([0, 0, 0, 2]), Buffer.from('g\0'), Buffer.alloc(78)]),
    ],
    [
      'wtpt',
      Buffer.concat([Buffer.from('XYZ \0\0\0\0'), Buffer.from([0, 0, 0xf6, 0xd6, 0, 1, 0, 0, 0, 0, 0xd3, 0x2d])]),
    ],
    ['kTRC', Buffer.concat([Buffer.from('curv\0\0\0\0'), Buffer.from([0, 0, 0, 1, 1, 0xcd, 0, 0])])],
  ];
  const table = Buffer.alloc(4 + tags.length * 12);
  table.writeUInt32BE(tags.length);
  let at = 128 + table.length;
  tags.forEach(([name, body], i) => {
    table.write(name, 4 + i * 12, 'latin1');
    table.writeUInt32BE(at, 8 + i * 12);
    table.writeUInt32BE(body.length, 12 + i * 12);
    at += body.length;
  });
  const head = Buffer.alloc(128);
  head.writeUInt32BE(at);
  head.writeUInt32BE(0x02100000, 8);
  head.write('mntrGRAYXYZ ', 12, 'latin1');
  head.write('acsp', 36, 'latin1');
  [0xf6d6, 0x10000, 0xd32d].forEach((v, i) => head.writeUInt32BE(v, 68 + i * 4));
  const profile = Buffer.concat([head, table, ...tags.map(([, body]) => body)]);
  const body = Buffer.concat([Buffer.from('iCCPgrey\0\0', 'latin1'), deflateSync(profile)]);
  const chunk = Buffer.alloc(body.length + 8);
  chunk.writeUInt32BE(body.length - 4);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(body), body.length + 4);
  return Buffer.concat([png.subarray(0, 33), chunk, png.subarray(33)]);
}

describe('samples that other programs write', () => {
  const size = { width: 8, height: 1 };
  test.each([
    [
      'half floats',
      rawTiff(Uint16Array.of(0, 0x3c00, 0x3800, 0x3400, 1, 0x2e66, 0x3266, 0x3a00), { ...size, bits: 16, format: 3 }),
      [0, 1, 0.5, 0.25, 2 ** -24, 0.0999755859375, 0.199951171875, 0.75],
      'TIFF, 16-bit float',
    ],
    [
      'doubles',
      rawTiff(Float64Array.of(0, 1, 0.5, 0.25, 0.125, 0.1, 0.2, 0.75), { ...size, bits: 64, format: 3 }),
      [0, 1, 0.5, 0.25, 0.125, 0.1, 0.2, 0.75],
      'TIFF, 64-bit float',
    ],
    [
      '32 bits',
      rawTiff(Uint32Array.of(0, 4294967295, 2147483648, 1073741824, 65536, 42949673, 3e9, 1e9), {
        ...size,
        bits: 32,
        format: 1,
      }),
      [0, 1, 0.5, 0.25, 65536 / 4294967295, 0.01, 3e9 / 4294967295, 1e9 / 4294967295],
      'TIFF, 32 bit',
    ],
    [
      '16 bits with a sign',
      rawTiff(Int16Array.of(-1000, 1000, 0, -500, 500, 250, -250, 999), { ...size, bits: 16, format: 2 }),
      [0, 1, 0.5, 0.25, 0.75, 0.625, 0.375, 0.9995],
      'TIFF, 16 bit with a sign, from −1000 to 1000',
    ],
    [
      '32 bits with a sign',
      rawTiff(Int32Array.of(-1e6, 1e6, 0, -5e5, 5e5, 25e4, -25e4, 999e3), { ...size, bits: 32, format: 2 }),
      [0, 1, 0.5, 0.25, 0.75, 0.625, 0.375, 0.9995],
      'TIFF, 32 bit with a sign, from −1000000 to 1000000',
    ],
    [
      'floats with cover',
      rawTiff(Float32Array.of(0, 1, 1, 1, 0.123456, 1, 0.123457, 0.5), {
        width: 4,
        height: 1,
        bits: 32,
        format: 3,
        planes: 2,
        cover: true,
      }),
      [0, 1, 0.123456, 0.123457],
      'TIFF, 32-bit float',
    ],
    [
      'floats beyond 0–1',
      rawTiff(Float32Array.of(-0.4, 3.1, 1.35, -0.4, 3.1, 1.35, 0.475, 2.225), { ...size, bits: 32, format: 3 }),
      [0, 1, 0.5, 0, 1, 0.5, 0.25, 0.75],
      'TIFF, 32-bit float, from −0.4 to 3.1',
    ],
  ])('%s', async (_, bytes, wanted, what) => {
    const read = await decodePicture(bytes, 'x.tif');
    expect([read.what, read.channels]).toEqual([what, 1]);
    expect(read.data.length).toBe(wanted.length);
    wanted.forEach((v, i) => expect(Math.abs(read.data[i] - v)).toBeLessThan(1e-6));
  });

  test('floats of three equal planes keep every one of their values', async () => {
    const ramp = Float32Array.from({ length: 3000 }, (_, i) => Math.floor(i / 3) / 1000);
    const read = await decodePicture(
      rawTiff(ramp, { width: 1000, height: 1, bits: 32, format: 3, planes: 3 }),
      'x.tif',
    );
    expect(read.channels).toBe(3);
    expect(Buffer.from(read.data.buffer).equals(Buffer.from(ramp.buffer))).toBe(true);
  });

  test('16 bits that are clear lie on 65 535, half clear ones between', async () => {
    const pixels = new Uint16Array(W * H * 4);
    for (let i = 0; i < W * H; i++) pixels.set([1000, 1000, 1000, i === 1 ? 65535 : 0], i * 4);
    const png = await sharp(pixels, { raw: { width: W, height: H, channels: 4 } })
      .pipelineColourspace('rgb16')
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    const { data } = await decodePicture(png, 'clear.png');
    expect([data[0], data[3], data[6]]).toEqual([65535, 1000, 65535]);
  });

  test('greys with a profile are heights, and stay as they are', async () => {
    const greys = Uint8Array.from({ length: 256 }, (_, i) => i);
    const plain = await sharp(greys, { raw: { width: 256, height: 1, channels: 1 } })
      .toColourspace('b-w')
      .png()
      .toBuffer();
    const { data } = await decodePicture(withGreyProfile(plain), 'profile.png');
    expect([...data]).toEqual([...greys]);
  });

  test.each([
    ['8BPS\0\x01', 'x.psd', 'layered picture'],
    ['#?RADIANCE\n', 'x.hdr', 'Radiance HDR'],
    ['P5\n2 2\n255\n', 'x.pgm', 'portable map'],
    ['BM', 'x.bmp', 'BMP'],
    ['\0\0\0\x0cjP  \r\n', 'x.jp2', 'JPEG 2000'],
    ['\0\0\x02', 'x.tga', 'TGA'],
  ])('%j is called what it is', async (head, name, said) => {
    await expect(decodePicture(Buffer.from(head.padEnd(64, '\0'), 'latin1'), name)).rejects.toThrow(said);
  });
});

test('a picture is what its bytes say, whatever it is called', async () => {
  const png = await plain('#cc3333').png().toBuffer();
  expect((await decodePicture(png, 'really a png.tga')).what).toBe('PNG, 8 bit');
});

describe('what can’t be read', () => {
  test.each([
    ['empty.png', () => Buffer.alloc(0), 'empty.png is empty'],
    ['words.png', () => Buffer.from('these are words'), 'isn’t a picture that can be read'],
    ['moving.gif', () => plain().gif().toBuffer(), 'is a GIF picture'],
    [
      'cut.png',
      async () => {
        const whole = await sharp(deep(3), { raw: { width: W, height: H, channels: 3 } })
          .png()
          .toBuffer();
        return whole.subarray(0, whole.length >> 1);
      },
      'cut short or damaged',
    ],
    [
      'cut.exr',
      async () => (await writeExr({ width: W, height: H, channels: { Y: ramp } }, squeeze)).subarray(0, 600),
      'can’t be read as EXR',
    ],
    [
      'flat.svg',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="90000" height="0"/>'),
      'can’t be drawn',
    ],
    [
      'blurred.svg',
      () =>
        Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><filter id="f"><feGaussianBlur stdDeviation="10"/></filter><rect width="9" height="9" filter="url(#f)"/></svg>',
        ),
      'holds filters',
    ],
    [
      'styled.svg',
      () =>
        Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="9" height="9" style="filter:blur(9px)"/></svg>',
        ),
      'holds filters',
    ],
    ['tiny.exr', () => Buffer.from([0x76, 0x2f, 0x31, 0x01, 0x02, 0, 0, 0, 0x63, 0x68]), 'can’t be read as EXR'],
  ] as const)('%s is refused with a sentence', async (name, make, sentence) => {
    await expect(Promise.resolve(make()).then((bytes) => decodePicture(bytes, name))).rejects.toThrow(sentence);
  });

  test('a picture that claims a huge size is refused before it is decoded', async () => {
    const png = Buffer.from(await plain().png().toBuffer());
    png.writeUInt32BE(60_000, 16);
    png.writeUInt32BE(60_000, 20);
    await expect(decodePicture(png, 'bomb.png')).rejects.toThrow(/million pixels|broken/);
  });
});

describe('windows', () => {
  const decoded: Decoded = { data: deep(1), channels: 1, width: W, height: H, what: '' };

  test('a window at its own size is cut out exactly', async () => {
    const { data, width, height } = await readWindow(decoded, { x: 10, y: 5, width: 24, height: 20, side: 999 });
    expect([width, height]).toEqual([24, 20]);
    for (let j = 0; j < 20; j++)
      for (let i = 0; i < 24; i++) expect(data[j * 24 + i]).toBe(decoded.data[(j + 5) * W + i + 10]);
  });

  test('beyond the sheet its sides go on', async () => {
    const { data, width } = await readWindow(decoded, { x: -4, y: -2, width: 10, height: 10, side: 999 });
    expect(data[0]).toBe(decoded.data[0]);
    expect(data[2 * width + 4]).toBe(decoded.data[0]);
    expect(data[2 * width + 5]).toBe(decoded.data[1]);
  });

  test('a large one is reduced to the side that is asked for, of 16 bits and of floats alike', async () => {
    const even: Decoded = {
      data: new Uint16Array(200 * 100).fill(30_000),
      channels: 1,
      width: 200,
      height: 100,
      what: '',
    };
    const small = await readWindow(even, { x: 0, y: 0, width: 200, height: 100, side: 50 });
    expect([small.width, small.height]).toEqual([50, 25]);
    expect(Math.abs(small.data[300] - 30_000)).toBeLessThan(3);
    const floats = await readWindow(
      { ...even, data: new Float32Array(200 * 100).fill(0.4) },
      { x: 0, y: 0, width: 200, height: 100, side: 50 },
    );
    expect(floats.data[300]).toBeCloseTo(0.4, 5);
  });

  test('a preview is a picture of the side that is asked for', async () => {
    const meta = await sharp(await previewOf(decoded, 30)).metadata();
    expect([meta.width, meta.height]).toEqual([30, 20]);
  });
});
