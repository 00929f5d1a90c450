/**
 * Reads a stored or received document. Older versions are migrated step by step; a newer or broken one
 * is refused with a sentence that names it, so that a list can skip it and lose nothing else.
 */
import type { z } from 'zod';
import { explain } from './explain';

export type Migration = (doc: Record<string, unknown>) => Record<string, unknown>;

export type ReadResult<T> = { ok: true; value: T } | { ok: false; reason: string };

/** `migrations[v]` turns version v into v + 1. */
export function readDocument<T>(
  what: string,
  schema: z.ZodType<T>,
  current: number,
  doc: unknown,
  migrations: Record<number, Migration> = {},
): ReadResult<T> {
  if (typeof doc !== 'object' || doc === null || Array.isArray(doc)) {
    return { ok: false, reason: `The ${what} is not an object.` };
  }
  let at = doc as Record<string, unknown>;
  const version = at['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return { ok: false, reason: `The ${what} has no version number.` };
  }
  if (version > current) {
    return {
      ok: false,
      reason: `The ${what} is of version ${version}; this program reads up to version ${current}. Update it to open this one.`,
    };
  }
  for (let v = version; v < current; v++) {
    const step = migrations[v];
    if (!step) return { ok: false, reason: `The ${what} is of version ${v}, which can no longer be read.` };
    at = { ...step(at), version: v + 1 };
  }
  const parsed = schema.safeParse(at);
  return parsed.success
    ? { ok: true, value: parsed.data }
    : { ok: false, reason: `The ${what} is broken: ${explain(parsed.error)}` };
}
