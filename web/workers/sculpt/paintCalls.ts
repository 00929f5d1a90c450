/** What the page asks of a painting: to begin, to change its layers, to be told whole. */
import * as Comlink from 'comlink';
import {
  bringPainting,
  changeLayers,
  colourUnder,
  resizePainting,
  startingLayers,
  startingSize,
  type Session,
} from '#core/session';
import { boxUnwrap, type Ray } from '#core/mesh';
import {
  flattened,
  islandPicture,
  resized,
  small,
  type IslandReport,
  type Layer,
  type LayerEdit,
  type Tiles,
} from '#core/paint';
import { change, current, state } from './state';
import type { PaintDraft } from './paintDraft';
import { packedPainting, type PackedPainting } from '../storedPainting';
import type { Change } from './messages';

/** A body without coordinates is unwrapped along the axes. */
function unwrapped({ surface: { mesh }, base }: Session): void {
  mesh.carried ??= { coordinates: null, groups: null };
  mesh.carried.coordinates ??= boxUnwrap({ positions: base ?? mesh.positions, triangles: mesh.triangles });
}

export const paintCalls = {
  /**
   * Painting begins with an empty texture, unless it has begun. A body without coordinates is unwrapped along the axes.
   */
  beginPainting(size: number): Change {
    const s = current();
    if (!s.painting) {
      unwrapped(s);
      bringPainting(s, size);
    }
    return change();
  },
  /** Layers of a file: a painting that begins with them, or more layers of the one that is there, at its size. */
  bringLayers(size: number, layers: Layer[]): Change {
    const s = current();
    if (!s.painting) {
      unwrapped(s);
      bringPainting(s, size, layers);
    } else {
      const fitting = (tiles: Tiles): Tiles => resized({ size, tiles }, s.painting!.size).tiles;
      changeLayers(s, {
        kind: 'bring',
        id: '',
        layers: layers.map((layer) => ({
          ...layer,
          tiles: fitting(layer.tiles),
          mask: layer.mask && fitting(layer.mask),
        })),
      });
    }
    return change();
  },
  /** Its layers with their tiles, to be written as a file; null where nothing is painted. */
  paintedLayers(): { size: number; layers: readonly Layer[] } | null {
    const { painting } = current();
    return painting && { size: painting.size, layers: painting.layers };
  },
  /** The layers that strokes are run again on; null where nothing is painted. */
  startingPainting(): { size: number; layers: readonly Layer[] } | null {
    const s = current();
    return s.painting && { size: startingSize(s), layers: startingLayers(s) };
  },
  /** The texture becomes larger or smaller, with what is on it. */
  resizePainting(size: number): Change {
    resizePainting(current(), size);
    return change();
  },
  changeLayers(edit: LayerEdit): Change {
    changeLayers(current(), edit);
    return change();
  },
  layerPicture(id: string, mask: boolean, side: number): Uint8ClampedArray<ArrayBuffer> | null {
    const texture = current().painting?.texture({ layer: id, mask });
    return texture ? small(texture, side) : null;
  },
  /** Islands and their stretch, what is painted on them, and how they are. */
  islandPicture(side: number): {
    rgba: Uint8ClampedArray<ArrayBuffer>;
    paint: Uint8ClampedArray<ArrayBuffer>;
    report: IslandReport;
  } {
    const { surface, painting } = current();
    const { mesh } = surface;
    const coordinates = mesh.carried?.coordinates;
    if (!coordinates) throw new Error('This body has no texture coordinates any more: pieces were merged into it.');
    const { rgba, report } = islandPicture({ mesh }, coordinates, side);
    const paint = painting
      ? small(flattened(painting.layers, painting.size), side)
      : new Uint8ClampedArray(side * side * 4);
    return Comlink.transfer({ rgba, paint, report }, [rgba.buffer, paint.buffer]);
  },
  colourAt(ray: Ray): string | null {
    const s = current();
    return s.painting ? colourUnder(s, ray) : null;
  },
  /** What of the painting isn’t kept yet; null where all is, or a stroke is being drawn. */
  paintDraft(): { body: string; draft: PaintDraft } | null {
    const { painting = null, running = null } = state.open ?? {};
    const { tiles, as } = state.drafted;
    const draft = painting && as !== null && !running ? tiles.draft(painting) : null;
    if (!draft || as === null) return null;
    const buffers = new Set(draft.tiles.flatMap(({ words }) => (words ? [words.buffer as ArrayBuffer] : [])));
    return Comlink.transfer({ body: as, draft }, [...buffers]);
  },
  forgetDraft(): void {
    state.drafted.tiles.forget();
  },
  /** All of the painting as it is kept with a body; null where there is none. */
  async packedPainting(): Promise<PackedPainting | null> {
    const { painting } = current();
    return painting && packedPainting(painting.size, painting.snapshot());
  },
  /** All of the painting, for a view that begins. */
  repaint(): Change {
    state.told.painted = null;
    return change();
  },
};
