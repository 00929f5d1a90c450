/** A new brush from an alpha, as a draft: the stamp's base with this form and full falloff. Answers its id. */
import { STAMP_BASE } from '#core/presets';
import type { AlphaHead } from '#core/kept';
import { brushDrafts } from '../api/drafts';
import { useLibrary } from '../stores/library';
import { plain } from '../stores/plain';

export async function brushFrom(alpha: AlphaHead): Promise<string> {
  const library = useLibrary();
  const brush = plain(STAMP_BASE);
  brush.id = crypto.randomUUID();
  brush.form.alphaId = alpha.id;
  brush.form.ground = alpha.ground;
  brush.touch.falloff.kind = 'full';
  brush.card = { name: library.freeName('brushes', alpha.card.name), author: alpha.card.author, tags: [], notes: '' };
  await brushDrafts.keep({ doc: brush, revision: null, keptAt: Date.now(), waiting: false });
  await library.loadDrafts();
  return brush.id;
}
