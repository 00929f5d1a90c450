/** The bytes that what a brush names is made of: other bytes, another picture. */
import type { BrushAlphas } from '#core/stored';

export function namedBlobs({ form, tooth, parts }: BrushAlphas): (string | undefined)[] {
  return [form?.blob, tooth?.blob, ...parts.map(({ mesh, seat }) => `${mesh} ${JSON.stringify(seat)}`)];
}
