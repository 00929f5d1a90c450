/** A flatbed scanner that isn't there: answers eSCL over HTTP with the page on its glass. */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { GLASS, GlassPage, type PageWish } from './page';

const MM_PER_INCH = 25.4;
const RESOLUTIONS = [75, 100, 150, 200, 300, 400, 600, 1200];
/** Bytes of one chunk that goes out. */
const PIECE = 64 * 1024;

/** What may go wrong with a real one. */
export interface Faults {
  busy?: boolean;
  /** Ends the line after so many bytes. */
  goneAfter?: number;
  /** Sends this in the place of what it can do. */
  nonsense?: string;
  /** Sends a page of half the size that was asked for. */
  half?: boolean;
  /** Between two chunks, ms. */
  slowMs?: number;
  /** Says where the scan is at another address. */
  elsewhere?: boolean;
}

export interface Flatbed {
  address: string;
  faults: Faults;
  /** Scans that were given up by whoever asked. */
  cancelled: number;
  close(): Promise<void>;
}

export async function startFlatbed(port: number, page = new GlassPage()): Promise<Flatbed> {
  const jobs = new Map<string, PageWish>();
  const bed: Flatbed = { address: '', faults: {}, cancelled: 0, close: () => Promise.resolve() };
  const server = createServer((request, response) => {
    void answer(request, response).catch(() => response.destroy());
  });

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const [, service, what, id, next] = (request.url ?? '').split('/');
    if (service !== 'eSCL') return end(response, 404);
    if (request.method === 'GET' && what === 'ScannerCapabilities')
      return end(response, 200, bed.faults.nonsense ?? capabilities());
    if (request.method === 'POST' && what === 'ScanJobs') {
      const wish = wishOf(await bodyOf(request));
      if (bed.faults.busy) return end(response, 503);
      const job = randomUUID();
      jobs.set(job, wish);
      const host = bed.faults.elsewhere ? 'elsewhere.example' : request.headers.host;
      response.setHeader('Location', `http://${host}/eSCL/ScanJobs/${job}`);
      return end(response, 201);
    }
    const wish = what === 'ScanJobs' && id ? jobs.get(id) : undefined;
    if (!wish) return end(response, 404);
    if (request.method === 'DELETE') {
      bed.cancelled++;
      jobs.delete(id);
      return end(response, 200);
    }
    if (next !== 'NextDocument') return end(response, 404);
    const { area } = wish;
    const size = bed.faults.half ? { ...area, width: area.width / 2, height: area.height / 2 } : area;
    await send(response, await page.scan({ ...wish, area: size }), wish.format);
    jobs.delete(id);
  }

  async function send(response: ServerResponse, bytes: Buffer, type: string): Promise<void> {
    response.writeHead(200, { 'Content-Type': type, 'Content-Length': bytes.length });
    // Whoever asked may go away in the middle of it.
    await pipeline(Readable.from(chunks(bytes, response), { objectMode: false }), response).catch(() => undefined);
  }

  async function* chunks(bytes: Buffer, response: ServerResponse): AsyncIterable<Buffer> {
    const { goneAfter = Infinity, slowMs = 0 } = bed.faults;
    for (let at = 0; at < bytes.length; at += PIECE) {
      if (at >= goneAfter) return void response.destroy();
      yield bytes.subarray(at, at + PIECE);
      if (slowMs > 0) await new Promise((done) => setTimeout(done, slowMs));
    }
  }

  await new Promise<void>((done, fail) => server.once('error', fail).listen(port, '127.0.0.1', done));
  bed.address = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  bed.close = () => closed(server);
  return bed;
}

function end(response: ServerResponse, status: number, xml = ''): void {
  response.writeHead(status, { 'Content-Type': 'text/xml' }).end(xml);
}

function closed(server: Server): Promise<void> {
  server.closeAllConnections();
  return new Promise((done) => server.close(() => done()));
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const part of request) text += String(part);
  return text;
}

function wishOf(xml: string): PageWish {
  const value = (tag: string): string => new RegExp(`<\\w+:${tag}>([^<]*)<`).exec(xml)?.[1] ?? '';
  const mm = (tag: string): number => (Number(value(tag)) / 300) * MM_PER_INCH;
  return {
    dpi: Number(value('XResolution')) || 300,
    colour: value('ColorMode') === 'RGB24',
    area: { x: mm('XOffset'), y: mm('YOffset'), width: mm('Width'), height: mm('Height') },
    format: value('DocumentFormat') === 'image/png' ? 'image/png' : 'image/jpeg',
  };
}

function capabilities(): string {
  const units = (mm: number): number => Math.round((mm / MM_PER_INCH) * 300);
  const resolutions = RESOLUTIONS.map(
    (dpi) =>
      `<scan:DiscreteResolution><scan:XResolution>${dpi}</scan:XResolution><scan:YResolution>${dpi}</scan:YResolution></scan:DiscreteResolution>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<scan:ScannerCapabilities xmlns:scan="http://schemas.hp.com/imaging/escl/2011/05/03" xmlns:pwg="http://www.pwg.org/schemas/2010/12/sm">
  <pwg:Version>2.63</pwg:Version>
  <pwg:MakeAndModel>Tidewrack Flatbed (stand-in)</pwg:MakeAndModel>
  <scan:Platen>
    <scan:PlatenInputCaps>
      <scan:MinWidth>16</scan:MinWidth><scan:MaxWidth>${units(GLASS.widthMm)}</scan:MaxWidth>
      <scan:MinHeight>16</scan:MinHeight><scan:MaxHeight>${units(GLASS.heightMm)}</scan:MaxHeight>
      <scan:SettingProfiles>
        <scan:SettingProfile>
          <scan:ColorModes><scan:ColorMode>Grayscale8</scan:ColorMode><scan:ColorMode>RGB24</scan:ColorMode></scan:ColorModes>
          <scan:DocumentFormats>
            <pwg:DocumentFormat>image/jpeg</pwg:DocumentFormat><scan:DocumentFormatExt>image/png</scan:DocumentFormatExt>
          </scan:DocumentFormats>
          <scan:SupportedResolutions>
            <scan:DiscreteResolutions>${resolutions.join('')}</scan:DiscreteResolutions>
          </scan:SupportedResolutions>
        </scan:SettingProfile>
      </scan:SettingProfiles>
    </scan:PlatenInputCaps>
  </scan:Platen>
</scan:ScannerCapabilities>`;
}
