/** An alpha in a few words, as they stand under its name. */
import type { AlphaHead } from '#core/kept';

export function alphaFacts({ size, relief, format }: Pick<AlphaHead, 'size' | 'relief' | 'format'>): string {
  if (format === 'vector32f') return `${size} px · vectors`;
  return `${size} px · relief ${relief.toFixed(3)}${format === 'grey32f' ? ' · float' : ''}`;
}
