import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { writeExr, writeTiff } from '#core/formats';
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
