/** Says that an alpha was cast anew, and which brushes follow it. */
import type { Alpha } from '#core/settings';
import { tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';

export async function tellAnew({ id, card }: Alpha): Promise<void> {
  const library = useLibrary();
  const follow = library.followersOf(id);
  tellNotice(
    follow.length === 0
      ? `“${card.name}” is cast anew; no brush uses it yet.`
      : `“${card.name}” is cast anew. ${follow.map((f) => `“${f}”`).join(', ')} ${follow.length === 1 ? 'follows' : 'follow'} it.`,
  );
  await library.load();
}
