/** Under a held key a press takes the colour that is seen on the surface. It may be a drifted one, and that is said. */
import { ref } from 'vue';
import type { Ray } from '#core/mesh';
import { paints, type Brush } from '#core/settings';
import { useShortcuts } from '../keys/shortcuts';
import { tellNotice } from '../controls/undoNotice';
import { usePalettes } from '../stores/palettes';
import { useProof } from '../stores/proof';

export function useColourPicking(o: { brush: () => Brush; edit: (change: (brush: Brush) => void) => void }) {
  const proof = useProof();
  const palettes = usePalettes();
  const held = ref(false);

  async function pick(ray: Ray): Promise<void> {
    const colour = await proof.sculptor.paint.colourAt(ray);
    if (!colour) return tellNotice('Nothing is painted here.');
    o.edit((brush) => (brush.colour.first = colour));
    if (!palettes.knows(colour))
      tellNotice(`${colour} was taken from the surface: a mixed or drifted colour, not one of those you chose.`);
  }

  useShortcuts([
    {
      command: 'pickColour',
      when: () => paints(o.brush()),
      hold: (down) => (held.value = down),
    },
    {
      command: 'swapColours',
      when: () => paints(o.brush()),
      run: () => o.edit((b) => ([b.colour.first, b.colour.second] = [b.colour.second, b.colour.first])),
    },
    {
      command: 'chosenColour',
      when: () => paints(o.brush()) && palettes.history.length > 0,
      run: () => o.edit((b) => (b.colour.first = palettes.history[0])),
    },
  ]);
  return { held, pick };
}
