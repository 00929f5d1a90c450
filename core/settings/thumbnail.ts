/** The small picture of a brush: what its own stroke is seen on, or a picture of one's own. */
import { z } from 'zod';
import { HexSchema } from './colour';
import { setting } from './setting';

/** A flat tile from above, or a ball. */
export const THUMBNAIL_BODIES = ['tile', 'ball'] as const;
/** Characters of a picture of one's own as a data URL: some 70 kB. */
export const MOST_OWN_PICTURE = 96_000;

export const ThumbnailSchema = z.object({
  body: z.enum(THUMBNAIL_BODIES).default('tile'),
  /** The colour of what it is seen on; null is clay. */
  ground: HexSchema.nullable().default(null),
  light: setting({
    label: 'Light from',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 135,
    help: 'Where the light comes from, anticlockwise from the right',
  }),
  zoom: setting({
    label: 'Zoom',
    unit: '%',
    min: 50,
    max: 400,
    step: 1,
    fallback: 100,
    scale: 'log',
    help: 'How near the stroke is looked at',
  }),
  /** Square, as a data URL, shown in place of its stroke. */
  own: z
    .string()
    .max(MOST_OWN_PICTURE, 'A picture of a brush takes up to 70 kB.')
    .regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/, 'The picture is a PNG, JPEG or WebP as a data URL.')
    .nullable()
    .default(null),
});
export type Thumbnail = z.infer<typeof ThumbnailSchema>;
export const PLAIN_THUMBNAIL: Thumbnail = ThumbnailSchema.parse({});
