/**
 * The words of eSCL, the open driverless protocol of scanners on the network (Mopria Alliance, "eSCL Technical
 * Specification", 2.97): what a scanner says it can do, and what it is asked for. Lengths are in 1/300 inch.
 */
import { XMLParser } from 'fast-xml-parser';
import { z } from 'zod';

const UNITS_PER_INCH = 300;
const MM_PER_INCH = 25.4;
export const LEAST_DPI = 75;
export const MOST_DPI = 1200;

export interface Capabilities {
  name: string;
  /** Of the glass, millimetres. */
  widthMm: number;
  heightMm: number;
  /** Ascending, 75 to 1200. */
  resolutions: number[];
  colours: ('colour' | 'grey')[];
  /** Media types, the first is asked for. */
  formats: string[];
}

/** A rectangle of the glass, millimetres from its upper left corner. */
export interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface ScanWish {
  dpi: number;
  colour: 'colour' | 'grey';
  area: Area;
  format: string;
}

/** It answered something that isn’t eSCL. */
export class Nonsense extends Error {}

const parser = new XMLParser({
  removeNSPrefix: true,
  ignoreAttributes: true,
  processEntities: false,
  parseTagValue: false,
});

const text = z.string();
const many = <T extends z.ZodType>(of: T) =>
  z.union([z.array(of), of.transform((one) => [one])]).pipe(z.array(z.any())) as unknown as z.ZodType<z.infer<T>[]>;
const whole = z
  .string()
  .regex(/^\d{1,6}$/)
  .transform(Number);
const Resolution = z.object({ XResolution: whole });
const Range = z.object({ Min: whole, Max: whole });
const Profile = z.object({
  ColorModes: z.object({ ColorMode: many(text) }).optional(),
  DocumentFormats: z
    .object({ DocumentFormat: many(text).optional(), DocumentFormatExt: many(text).optional() })
    .optional(),
  SupportedResolutions: z.object({
    DiscreteResolutions: z.object({ DiscreteResolution: many(Resolution) }).optional(),
    ResolutionRange: z.object({ XResolutionRange: Range }).optional(),
  }),
});
const Document = z.object({
  ScannerCapabilities: z.object({
    MakeAndModel: text.optional(),
    Platen: z.object({
      PlatenInputCaps: z.object({
        MaxWidth: whole,
        MaxHeight: whole,
        SettingProfiles: z.object({ SettingProfile: many(Profile) }),
      }),
    }),
  }),
});
const OFFERED = [75, 100, 150, 200, 300, 400, 600, 1200];

/** Throws Nonsense. */
export function readCapabilities(xml: string): Capabilities {
  let read: z.infer<typeof Document>;
  try {
    read = Document.parse(parser.parse(xml));
  } catch {
    throw new Nonsense('It doesn’t say what a flatbed can do.');
  }
  const { MakeAndModel, Platen } = read.ScannerCapabilities;
  const { MaxWidth, MaxHeight, SettingProfiles } = Platen.PlatenInputCaps;
  const profiles = SettingProfiles.SettingProfile;
  const resolutions = new Set<number>();
  const formats = new Set<string>();
  const modes = new Set<string>();
  for (const { ColorModes, DocumentFormats, SupportedResolutions: s } of profiles) {
    for (const { XResolution } of s.DiscreteResolutions?.DiscreteResolution ?? []) resolutions.add(XResolution);
    const range = s.ResolutionRange?.XResolutionRange;
    if (range) for (const dpi of OFFERED) if (dpi >= range.Min && dpi <= range.Max) resolutions.add(dpi);
    for (const mode of ColorModes?.ColorMode ?? []) modes.add(mode);
    for (const format of [...(DocumentFormats?.DocumentFormat ?? []), ...(DocumentFormats?.DocumentFormatExt ?? [])])
      formats.add(format);
  }
  const usable = [...resolutions].filter((dpi) => dpi >= LEAST_DPI && dpi <= MOST_DPI).sort((a, b) => a - b);
  const taken = ['image/png', 'image/jpeg'].filter((format) => formats.has(format));
  if (usable.length === 0 || MaxWidth === 0 || MaxHeight === 0 || taken.length === 0)
    throw new Nonsense('It has no flatbed that sends JPEG or PNG from 75 to 1200 dpi.');
  return {
    name: (MakeAndModel ?? 'Scanner').slice(0, 120),
    widthMm: (MaxWidth / UNITS_PER_INCH) * MM_PER_INCH,
    heightMm: (MaxHeight / UNITS_PER_INCH) * MM_PER_INCH,
    resolutions: usable,
    colours: [
      ...(modes.has('RGB24') ? ['colour' as const] : []),
      ...(modes.has('Grayscale8') ? ['grey' as const] : []),
    ],
    formats: taken,
  };
}

/** A picture of so many pixels comes as PNG, which loses nothing; a larger one as JPEG, which comes sooner. */
const MOST_PNG_PIXELS = 40e6;

export function formatFor({ formats }: Capabilities, { dpi, area }: Pick<ScanWish, 'dpi' | 'area'>): string {
  const { width, height } = pixelsOf(dpi, area);
  return width * height > MOST_PNG_PIXELS ? (formats.find((f) => f === 'image/jpeg') ?? formats[0]) : formats[0];
}

export function pixelsOf(dpi: number, { width, height }: Area): { width: number; height: number } {
  return { width: Math.round((width / MM_PER_INCH) * dpi), height: Math.round((height / MM_PER_INCH) * dpi) };
}

const units = (mm: number): number => Math.round((mm / MM_PER_INCH) * UNITS_PER_INCH);

export function settingsXml({ dpi, colour, area, format }: ScanWish): string {
  return `<?xml version="1.0" encoding="UTF-8"?>
<scan:ScanSettings xmlns:scan="http://schemas.hp.com/imaging/escl/2011/05/03" xmlns:pwg="http://www.pwg.org/schemas/2010/12/sm">
  <pwg:Version>2.63</pwg:Version>
  <scan:Intent>Photo</scan:Intent>
  <pwg:ScanRegions>
    <pwg:ScanRegion>
      <pwg:ContentRegionUnits>escl:ThreeHundredthsOfInches</pwg:ContentRegionUnits>
      <pwg:XOffset>${units(area.x)}</pwg:XOffset>
      <pwg:YOffset>${units(area.y)}</pwg:YOffset>
      <pwg:Width>${units(area.width)}</pwg:Width>
      <pwg:Height>${units(area.height)}</pwg:Height>
    </pwg:ScanRegion>
  </pwg:ScanRegions>
  <pwg:InputSource>Platen</pwg:InputSource>
  <scan:ColorMode>${colour === 'colour' ? 'RGB24' : 'Grayscale8'}</scan:ColorMode>
  <scan:XResolution>${dpi}</scan:XResolution>
  <scan:YResolution>${dpi}</scan:YResolution>
  <pwg:DocumentFormat>${format}</pwg:DocumentFormat>
  <scan:DocumentFormatExt>${format}</scan:DocumentFormatExt>
</scan:ScanSettings>`;
}
