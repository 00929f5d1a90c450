/**
 * Stored bytes as a pack file has them, and back: pictures as PNG and EXR, meshes as GLB, each with its maker and
 * licence in it. What comes back is the same to the bit, or is refused.
 */
import { randomUUID, webcrypto } from 'node:crypto';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { constants, crc32, deflate } from 'node:zlib';
import sharp from 'sharp';
import { packMesh, readMesh, RELIEF_KEY, withPngText, writeExr, writePng16 } from '#core/formats';
import { meshFromGlb, meshToGlb, type DataKind, type PlannedData } from '#core/packFile';
import { beside } from './beside';
import type { Blobs } from './blobs';
import { refuse, readExr } from './decode';

/** Written once and read often, but writing is what is waited for. */
const PNG_EFFORT = 3;
const EXR_EFFORT = 3;
/** In few large pieces: with small ones the threads wait for each other. */
const RUNS = { level: 3, strategy: constants.Z_RLE, chunkSize: 2 ** 20 };
const MOST_SIDE = 8192;
const deflated = promisify(deflate);

export type ToEncode = Omit<PlannedData, 'path'>;

async function encodeData(bytes: Uint8Array, data: ToEncode): Promise<Uint8Array> {
  const { kind, size = 0, title, provenance } = data;
  switch (kind) {
    case 'bytes':
      return bytes;
    case 'mesh':
      return meshToGlb(readMesh(exact(bytes)), { title, provenance, millimetres: data.millimetres ?? 1 });
    case 'grey16': {
      const greys = new Uint16Array(exact(bytes));
      // Libvips takes twice the time for a file that is larger.
      const rows = (bytes: Uint8Array): Promise<Uint8Array> => deflated(bytes, RUNS);
      return writePng16(greys, size, rows, said(data), crc32);
    }
    case 'rgba8': {
      const png = await sharp(bytes, { raw: { width: size, height: size, channels: 4 } })
        .png({ compressionLevel: PNG_EFFORT })
        .toBuffer();
      return withPngText(png, said(data));
    }
    case 'grey32f':
    case 'vector32f': {
      const { relief } = data;
      const says = {
        ...(relief ? { [RELIEF_KEY]: String(relief) } : {}),
        ...(provenance.maker ? { owner: provenance.maker } : {}),
        comments: [title, provenance.licence, provenance.site].filter(Boolean).join(', '),
      };
      return writeExr(
        { width: size, height: size, channels: planes(new Float32Array(exact(bytes)), kind), says },
        (line) => deflated(line, { level: EXR_EFFORT }),
      );
    }
  }
}

/** Keys of the PNG specification. */
function said({ title, relief, provenance }: ToEncode): Record<string, string> {
  const { maker, site, licence } = provenance;
  const all = {
    Title: title,
    Author: maker,
    Copyright: licence,
    Source: site,
    [RELIEF_KEY]: relief ? String(relief) : '',
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== ''));
}

function planes(values: Float32Array, kind: 'grey32f' | 'vector32f'): Record<string, Float32Array> {
  if (kind === 'grey32f') return { Y: values };
  const every = (k: number): Float32Array =>
    Float32Array.from({ length: values.length / 3 }, (_, i) => values[i * 3 + k]);
  return { R: every(0), G: every(1), B: every(2) };
}

/** Throws a Problem with a sentence. Whether it is what was written is for the caller to see. */
export async function decodeData(bytes: Uint8Array, kind: DataKind, name: string): Promise<Uint8Array> {
  switch (kind) {
    case 'bytes':
      return bytes;
    case 'mesh':
      return new Uint8Array(packMesh(meshFromGlb(bytes)));
    case 'grey16':
    case 'rgba8': {
      const at = sharp(bytes, { limitInputPixels: MOST_SIDE ** 2, failOn: 'truncated' });
      const wide =
        kind === 'grey16'
          ? at.pipelineColourspace('grey16').toColourspace('grey16').raw({ depth: 'ushort' })
          : at.ensureAlpha().raw({ depth: 'uchar' });
      const data = await wide.toBuffer().catch(() => {
        throw refuse(`“${name}” can’t be decoded.`);
      });
      return data;
    }
    case 'grey32f':
    case 'vector32f': {
      const { channels, data } = await readExr(bytes, name);
      const wanted = kind === 'grey32f' ? 1 : 3;
      if (channels < wanted) throw refuse(`“${name}” lacks channels.`);
      const out = new Float32Array((data.length / channels) * wanted);
      for (let i = 0; i < data.length / channels; i++)
        for (let k = 0; k < wanted; k++) out[i * wanted + k] = data[i * channels + k];
      return new Uint8Array(out.buffer);
    }
  }
}

/** A file of its own, for the asker to read and to let go of: large messages between processes are slow. */
export interface Encoded {
  kind: DataKind;
  path: string;
  sha256: string;
  crc32: number;
}

/** Texels that are encoded at once: more than there are cores, and few enough to be held. */
const MOST_PIXELS = 4 * 2 ** 20;

export async function encodedAll(wanted: readonly ToEncode[], blobs: Blobs, folder: string): Promise<Encoded[]> {
  const done = await beside(wanted, { most: MOST_PIXELS, weight: ({ size = 512 }) => size ** 2 }, async (data) =>
    encoded(await blobs(data.blob), data, folder),
  );
  const failed = done.find((each) => each.status === 'rejected');
  const out = done.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
  if (!failed) return out;
  for (const { path } of out) await rm(path, { force: true });
  throw failed.reason;
}

/** A mesh of an earlier layout doesn’t come back to the bit; it goes out as it is. */
async function encoded(bytes: Uint8Array, data: ToEncode, folder: string): Promise<Encoded> {
  const kind = data.kind === 'mesh' && !comesBack(bytes) ? 'bytes' : data.kind;
  const out = await encodeData(bytes, { ...data, kind });
  const path = join(folder, randomUUID());
  const [hash] = await Promise.all([
    webcrypto.subtle.digest('SHA-256', out as Uint8Array<ArrayBuffer>),
    writeFile(path, out, { flag: 'wx' }),
  ]);
  return { kind, path, sha256: Buffer.from(hash).toString('hex'), crc32: crc32(out) };
}

function comesBack(bytes: Uint8Array): boolean {
  try {
    return Buffer.compare(new Uint8Array(packMesh(readMesh(exact(bytes)))), bytes) === 0;
  } catch {
    return false;
  }
}

function exact(bytes: Uint8Array): ArrayBuffer {
  if (bytes.byteOffset === 0 && bytes.byteLength === bytes.buffer.byteLength) return bytes.buffer as ArrayBuffer;
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
}
