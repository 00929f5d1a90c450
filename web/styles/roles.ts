/** Colours by role, for what is not drawn by style sheets: 3D views and charts. */

/** As it is now, e.g. `roleColour('--ink')`. */
export const roleColour = (role: `--${string}`): string =>
  getComputedStyle(document.documentElement).getPropertyValue(role).trim();

/** Tells of another theme; answers what stops it. */
export function onTheme(changed: () => void): () => void {
  const watcher = new MutationObserver(changed);
  watcher.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  return () => watcher.disconnect();
}
