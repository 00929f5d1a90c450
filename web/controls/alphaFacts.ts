/** An alpha in a few words, as they stand under its name. */
import type { AlphaHead } from '#core/stored';

export function alphaFacts({ size, relief, format, lineage }: AlphaHead): string {
  const colours = lineage.colours ? ' · colours' : '';
  if (format === 'vector32f') return `${size} px · vectors${colours}`;
  return `${size} px · relief ${relief.toFixed(3)}${format === 'grey32f' ? ' · float' : ''}${colours}`;
}
