/**
 * Writes OpenEXR 2 pictures: scan lines, float32 channels, ZIP compression of 16 lines at a time.
 *
 * Source: "OpenEXR File Layout", Academy Software Foundation. Compression itself (zlib) is handed in, so that it can
 * run beside the caller.
 */

export interface ExrPicture {
  width: number;
  height: number;
  /**
   * By name; each holds width × height values, first row at the top. Written in alphabetic order, as readers expect.
   */
  channels: Record<string, Float32Array>;
  /** More of the header, as text. */
  says?: Record<string, string>;
}

export type Deflate = (bytes: Uint8Array<ArrayBuffer>) => Promise<Uint8Array>;

const LINES = 16;
const ZIP = 3;
const FLOAT = 2;

export async function writeExr(picture: ExrPicture, deflate: Deflate): Promise<Uint8Array<ArrayBuffer>> {
  const { width, height } = picture;
  const names = Object.keys(picture.channels).sort();
  for (const name of names) {
    const found = picture.channels[name].length;
    if (found !== width * height)
      throw new Error(`Channel ${name} has ${found} values; ${width} × ${height} pixels need ${width * height}.`);
  }
  const head = header(width, height, names, picture.says ?? {});
  const blocks = Math.ceil(height / LINES);
  const chunks: Uint8Array[] = [];
  for (let block = 0; block < blocks; block++) {
    const first = block * LINES;
    const raw = lines(picture, names, first, Math.min(height, first + LINES));
    const packed = await deflate(predicted(raw));
    // A block that doesn't shrink is stored as it is.
    const data = packed.length < raw.length ? packed : raw;
    const chunk = new Uint8Array(8 + data.length);
    new DataView(chunk.buffer).setInt32(0, first, true);
    new DataView(chunk.buffer).setInt32(4, data.length, true);
    chunk.set(data, 8);
    chunks.push(chunk);
  }
  const out = new Uint8Array(head.length + blocks * 8 + chunks.reduce((sum, c) => sum + c.length, 0));
  const view = new DataView(out.buffer);
  out.set(head);
  let at = head.length + blocks * 8;
  chunks.forEach((chunk, i) => {
    view.setBigUint64(head.length + i * 8, BigInt(at), true);
    out.set(chunk, at);
    at += chunk.length;
  });
  return out;
}

function header(width: number, height: number, names: readonly string[], says: Record<string, string>): Uint8Array {
  const bytes: number[] = [];
  const int = (n: number): void => void bytes.push(n & 255, (n >> 8) & 255, (n >> 16) & 255, (n >>> 24) & 255);
  const float = (n: number): void => void bytes.push(...new Uint8Array(new Float32Array([n]).buffer));
  const text = (s: string): void => void bytes.push(...Array.from(s, (c) => c.charCodeAt(0)), 0);
  const attribute = (name: string, type: string, size: number): void => {
    text(name);
    text(type);
    int(size);
  };
  int(20000630);
  int(2);
  attribute(
    'channels',
    'chlist',
    names.reduce((sum, name) => sum + name.length + 17, 1),
  );
  for (const name of names) {
    text(name);
    int(FLOAT);
    int(0);
    int(1);
    int(1);
  }
  bytes.push(0);
  attribute('compression', 'compression', 1);
  bytes.push(ZIP);
  for (const window of ['dataWindow', 'displayWindow']) {
    attribute(window, 'box2i', 16);
    int(0);
    int(0);
    int(width - 1);
    int(height - 1);
  }
  attribute('lineOrder', 'lineOrder', 1);
  bytes.push(0);
  attribute('pixelAspectRatio', 'float', 4);
  float(1);
  attribute('screenWindowCenter', 'v2f', 8);
  float(0);
  float(0);
  attribute('screenWindowWidth', 'float', 4);
  float(1);
  for (const [key, value] of Object.entries(says)) {
    const said = new TextEncoder().encode(value);
    attribute(key, 'string', said.length);
    bytes.push(...said);
  }
  bytes.push(0);
  return Uint8Array.from(bytes);
}

/** Line by line, each channel's values of the line behind each other. */
function lines(picture: ExrPicture, names: readonly string[], first: number, end: number): Uint8Array<ArrayBuffer> {
  const { width } = picture;
  const out = new Float32Array((end - first) * names.length * width);
  let at = 0;
  for (let j = first; j < end; j++) {
    for (const name of names) {
      out.set(picture.channels[name].subarray(j * width, (j + 1) * width), at);
      at += width;
    }
  }
  return new Uint8Array(out.buffer);
}

/** Even bytes first, then odd ones, each as the difference from the one before. */
function predicted(raw: Uint8Array): Uint8Array<ArrayBuffer> {
  const half = Math.ceil(raw.length / 2);
  const out = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; i++) out[(i & 1) * half + (i >> 1)] = raw[i];
  let before = out[0] ?? 0;
  for (let i = 1; i < out.length; i++) {
    const now = out[i];
    out[i] = now - before + 128;
    before = now;
  }
  return out;
}
