/** Long work that is followed, and given up between two of its parts. */

/** Hears how far it is, 0–1; answers false to give it up. */
export type OnProgress = (share: number) => boolean;

/** It was given up; nothing has changed. */
export class StepCancelled extends Error {
  constructor() {
    super('This was cancelled.');
  }
}

/** Throws StepCancelled where it is given up. */
export function follow(onProgress: OnProgress, share: number): void {
  if (!onProgress(share)) throw new StepCancelled();
}

/** What is heard of a part of the work that goes from one share of it to another. */
export function partOf(onProgress: OnProgress, from: number, to: number): OnProgress {
  return (share) => onProgress(from + (to - from) * share);
}

export const unwatched: OnProgress = () => true;
