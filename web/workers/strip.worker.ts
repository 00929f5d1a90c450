/** Draws the strip of the brush on the bench away from the page. */
import * as Comlink from 'comlink';
import { colouredForm, resolveBrush, type AlphaForm } from '#core/brush';
import type { Brush } from '#core/settings';
import type { Session } from '#core/session';
import type { AlphaBytes } from '../api/alphaBytes';
import { brushStrip, stripClay, swatchClay, swatchSheet, type StripClay, type Swatch } from '#core/thumbnail';

const forms = new Map<string, AlphaForm>();
const MOST_FORMS = 4;
let clay: StripClay | null = null;
let clayWidth = 0;
let sheet: Session | null = null;

const api = {
  /** An alpha's picture, named by its blob. */
  sendForm(blob: string, { kind, bytes, colours }: AlphaBytes): void {
    forms.delete(blob);
    forms.set(blob, colouredForm(kind, bytes, colours));
    if (forms.size > MOST_FORMS) forms.delete(forms.keys().next().value!);
  },
  knows: (blob: string): boolean => forms.has(blob),
  render(
    brush: Brush,
    form: string | null,
    tooth: string | null,
    width: number,
  ): { width: number; height: number; data: ArrayBuffer } {
    if (!clay || clayWidth !== width) [clay, clayWidth] = [stripClay(width), width];
    const of = (blob: string | null): AlphaForm | null => (blob ? (forms.get(blob) ?? null) : null);
    const { data, ...size } = brushStrip(clay, resolveBrush(brush, of(form), of(tooth)), width);
    const bytes = data.buffer as ArrayBuffer;
    return Comlink.transfer({ ...size, data: bytes }, [bytes]);
  },
  swatches(
    brush: Brush,
    form: string | null,
    tooth: string | null,
    swatches: Swatch[],
    width: number,
  ): { width: number; height: number; data: ArrayBuffer } {
    sheet ??= swatchClay();
    const of = (blob: string | null): AlphaForm | null => (blob ? (forms.get(blob) ?? null) : null);
    const { data, ...size } = swatchSheet(sheet, resolveBrush(brush, of(form), of(tooth)), swatches, width);
    const bytes = data.buffer as ArrayBuffer;
    return Comlink.transfer({ ...size, data: bytes }, [bytes]);
  },
};

export type StripWorker = typeof api;
Comlink.expose(api);
