/**
 * Workers come with the page too, so that none is out of reach while the server is away: their scripts are fetched
 * before they are needed.
 */
import draft from '../api/draft.worker?worker&url';
import cast from './cast.worker?worker&url';
import meshFile from './meshFile.worker?worker&url';
import recipe from './recipe.worker?worker&url';
import sculpt from './sculpt.worker?worker&url';
import sheet from './sheet.worker?worker&url';
import strip from './strip.worker?worker&url';
import thumbnail from './thumbnail.worker?worker&url';

export function fetchWorkersAhead(): void {
  requestIdleCallback(() => {
    for (const script of [cast, draft, meshFile, recipe, sculpt, sheet, strip, thumbnail])
      void fetch(script).catch(() => undefined);
  });
}
