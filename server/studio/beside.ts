/** Several at once, but not all: the next begins as soon as one has ended. */

/**
 * What came of each, in their order; none is begun after one has failed, and all that were begun have ended. `weight`
 * says how much of `most` one takes; one that weighs more than all goes alone.
 */
export async function beside<T, R>(
  all: readonly T[],
  { most, weight }: { most: number; weight: (one: T) => number },
  act: (one: T) => Promise<R>,
): Promise<PromiseSettledResult<R>[]> {
  const results: PromiseSettledResult<R>[] = [];
  const running = new Set<Promise<void>>();
  let held = 0;
  let failed = false;
  for (const [i, one] of all.entries()) {
    const own = weight(one);
    while (running.size > 0 && held + own > most) await Promise.race(running);
    if (failed) break;
    held += own;
    const work = act(one)
      .then(
        (value) => void (results[i] = { status: 'fulfilled', value }),
        (reason: unknown) => {
          failed = true;
          results[i] = { status: 'rejected', reason };
        },
      )
      .finally(() => {
        held -= own;
        running.delete(work);
      });
    running.add(work);
  }
  await Promise.all(running);
  return results;
}
