/** Stored bytes are named by their content. */
import { z } from 'zod';

export const BlobHashSchema = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'A blob is named by the 64 hexadecimal digits of its SHA-256.');
