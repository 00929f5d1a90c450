/** The page that lies on the stand-in's glass: prints of the wharf, a little crooked, with grain, dust and a hair. */
import sharp from 'sharp';
import { seeded } from '#core/random';
import { drawPrints } from '../sheets/prints';

const MM_PER_INCH = 25.4;
/** The prints are drawn so finely once; what is finer is the paper's grain, drawn at the resolution asked for. */
const DRAWN_DPI = 110;
/** Side of the grain's repeating square, and how far it darkens, of 255. */
const GRAIN_SIDE = 512;
const GRAIN_DEPTH = 14;
export const GLASS = { widthMm: 215.9, heightMm: 297 };
const CROOKED_DEGREES = 1.3;

export interface PageWish {
  dpi: number;
  colour: boolean;
  /** Millimetres on the glass. */
  area: { x: number; y: number; width: number; height: number };
  format: 'image/jpeg' | 'image/png';
}

const px = (mm: number, dpi: number): number => Math.max(1, Math.round((mm / MM_PER_INCH) * dpi));

/** Draws the glass once, and then scans of it. */
export class GlassPage {
  private drawn: Promise<Buffer> | null = null;

  async scan({ dpi, colour, area, format }: PageWish): Promise<Buffer> {
    this.drawn ??= this.draw();
    const glass = await this.drawn;
    const left = Math.min(px(area.x, DRAWN_DPI), px(GLASS.widthMm, DRAWN_DPI) - 2);
    const top = Math.min(px(area.y, DRAWN_DPI), px(GLASS.heightMm, DRAWN_DPI) - 2);
    const width = px(area.width, dpi);
    const height = px(area.height, dpi);
    let scan = sharp(glass, { limitInputPixels: false })
      .extract({
        left,
        top,
        width: Math.min(px(area.width, DRAWN_DPI), px(GLASS.widthMm, DRAWN_DPI) - left),
        height: Math.min(px(area.height, DRAWN_DPI), px(GLASS.heightMm, DRAWN_DPI) - top),
      })
      .resize(width, height, { fit: 'fill', kernel: 'linear' });
    if (dpi > DRAWN_DPI)
      scan = scan.composite([{ input: await this.grainOf(dpi, width, height), tile: true, blend: 'multiply' }]);
    scan = colour ? scan.removeAlpha() : scan.removeAlpha().toColourspace('b-w');
    return format === 'image/png'
      ? scan.png({ compressionLevel: 3 }).toBuffer()
      : scan.jpeg({ quality: 86 }).toBuffer();
  }

  /** Fibres of a tenth of a millimetre and the sensor's own noise, as one square that repeats. */
  private grainOf(dpi: number, width: number, height: number): Promise<Buffer> {
    const fibre = Math.max(1, Math.round(px(0.1, dpi)));
    const random = seeded(dpi, 3);
    const noise = Float32Array.from({ length: GRAIN_SIDE ** 2 }, () => random());
    const rgb = new Uint8Array(GRAIN_SIDE ** 2 * 3);
    for (let j = 0; j < GRAIN_SIDE; j++)
      for (let i = 0; i < GRAIN_SIDE; i++) {
        const at = j * GRAIN_SIDE + i;
        let along = 0;
        for (let k = 0; k < fibre; k++) along += noise[j * GRAIN_SIDE + ((i + k) % GRAIN_SIDE)];
        rgb.fill(255 - GRAIN_DEPTH * (0.6 * (along / fibre) + 0.4 * noise[at]), at * 3, at * 3 + 3);
      }
    return sharp(rgb, { raw: { width: GRAIN_SIDE, height: GRAIN_SIDE, channels: 3 } })
      .extract({ left: 0, top: 0, width: Math.min(GRAIN_SIDE, width), height: Math.min(GRAIN_SIDE, height) })
      .png()
      .toBuffer();
  }

  private async draw(): Promise<Buffer> {
    const width = px(GLASS.widthMm, DRAWN_DPI);
    const height = px(GLASS.heightMm, DRAWN_DPI);
    const { raster } = drawPrints({
      width: Math.round(width * 0.94),
      height: Math.round(height * 0.94),
      seed: 57,
      columns: 4,
      rows: 5,
      dust: 70,
      hairs: 1,
      shade: 0.16,
      grain: 0.045,
    });
    const rgb = new Uint8Array(raster.width * raster.height * 3);
    raster.planes.forEach((plane, k) => plane.forEach((v, i) => (rgb[i * 3 + k] = Math.round(v * 255))));
    const lid = { r: 236, g: 235, b: 231, alpha: 1 };
    const page = await sharp(rgb, { raw: { width: raster.width, height: raster.height, channels: 3 } })
      .rotate(CROOKED_DEGREES, { background: lid })
      .png({ compressionLevel: 1 })
      .toBuffer({ resolveWithObject: true });
    // The lid's white is seen beside the page.
    return sharp({ create: { width, height, channels: 3, background: lid } })
      .composite([
        {
          input: await sharp(page.data)
            .extract({
              left: 0,
              top: 0,
              width: Math.min(width, page.info.width),
              height: Math.min(height, page.info.height),
            })
            .toBuffer(),
          left: Math.max(0, Math.round((width - page.info.width) * 0.4)),
          top: Math.max(0, Math.round((height - page.info.height) * 0.4)),
        },
      ])
      .png({ compressionLevel: 1 })
      .toBuffer();
  }
}
