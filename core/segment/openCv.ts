/**
 * The package as it comes, behind a module of our own: it has a `then` that answers with itself, so a promise of it
 * would never be kept. Whoever imports this one first makes the place for its settings, `globalThis.Module`, which it
 * can't make itself in a module.
 */
import cv from '@techstark/opencv-js';

export { cv };

export function whenReady(): Promise<void> {
  return new Promise((ready) => {
    if (typeof cv.Mat === 'function') ready();
    else cv.onRuntimeInitialized = ready;
  });
}
