/**
 * Work that must not run twice at once, such as a save: asked for again while it runs, it is done once more when it has
 * ended, however often it was asked for meanwhile, so that what changed in between is in it. `of` names what it is done
 * to: when that is another by then, nothing is done to the other.
 */
export function oneAtATime<T>(work: () => Promise<T>, of: () => unknown = () => null): () => Promise<T> {
  let running: Promise<T> | null = null;
  let next: { of: unknown; done: Promise<T> } | null = null;

  function run(): Promise<T> {
    const mine = work().finally(() => {
      if (running === mine) running = null;
    });
    running = mine;
    return mine;
  }

  return () => {
    const wanted = of();
    if (next !== null && next.of === wanted) return next.done;
    const before = next?.done ?? running;
    if (!before) return run();
    const done: Promise<T> = before
      .then(
        () => undefined,
        () => undefined,
      )
      .then(() => {
        if (next?.done === done) next = null;
        return of() === wanted ? run() : before;
      });
    next = { of: wanted, done };
    return done;
  };
}
