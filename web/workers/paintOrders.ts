/** What is asked of the sculpting worker about what is painted on the body, in the order of everything else. */
import type { Ray } from '#core/mesh';
import type { Layer, LayerEdit } from '#core/paint';
import { plain } from '../api/plain';
import type { PackedPainting } from './storedPainting';
import type { SculptWorker } from './sculpt.worker';
import type { SculptOrders } from './sculptOrders';
import type { PaintDraft } from './sculpt/paintDraft';

export interface PaintedLayers {
  size: number;
  layers: readonly Layer[];
}

export class PaintOrders {
  constructor(private readonly o: SculptOrders) {}

  /** Painting begins with an empty texture, unless it has begun. */
  begin(size: number): Promise<void> {
    return this.o.changing(() => this.o.worker.beginPainting(size));
  }

  /** The texture becomes larger or smaller, with what is on it. */
  resize(size: number): Promise<void> {
    return this.o.changing(() => this.o.worker.resizePainting(size));
  }

  /** Layers of a file come over those that are there, or painting begins with them. */
  bring(size: number, layers: readonly Layer[]): Promise<void> {
    const sent = [...layers];
    return this.o.changing(() => this.o.worker.bringLayers(size, sent));
  }

  /** The layers that strokes are run again on; null where nothing is painted. */
  starting(): Promise<PaintedLayers | null> {
    return this.o.give(() => this.o.worker.startingPainting());
  }

  /** The layers with their tiles; null where nothing is painted. */
  layers(): Promise<PaintedLayers | null> {
    return this.o.give(() => this.o.worker.paintedLayers());
  }

  /** One step of history. Of one gesture only the latest waits. */
  change(edit: LayerEdit): Promise<void> {
    const sent = plain(edit);
    const key = edit.kind === 'set' && edit.gesture !== undefined ? `layers ${edit.gesture}` : null;
    return this.o.changing(() => this.o.worker.changeLayers(sent), key === null ? {} : { key });
  }

  /** What of the painting isn’t kept in the browser yet. */
  draft(): Promise<{ body: string; draft: PaintDraft } | null> {
    return this.o.give(() => this.o.worker.paintDraft());
  }

  /** What was kept is lost: the next draft is whole. */
  forgetDraft(): Promise<void> {
    return this.o.give(() => this.o.worker.forgetDraft());
  }

  /** All of the painting as it is kept with a body; null where there is none. */
  packed(): Promise<PackedPainting | null> {
    return this.o.give(() => this.o.worker.packedPainting());
  }

  /** A small picture of a layer, or of its mask, so many pixels a side; null where it isn’t there. */
  layerPicture(id: string, mask: boolean, side: number): Promise<Uint8ClampedArray<ArrayBuffer> | null> {
    return this.o.give(() => this.o.worker.layerPicture(id, mask, side));
  }

  /** The islands of the body’s coordinates as a picture, and how they are. */
  islandPicture(side: number): Promise<ReturnType<SculptWorker['islandPicture']>> {
    return this.o.give(() => this.o.worker.islandPicture(side));
  }

  /** What is painted where a ray meets the body, “#rrggbb”; null where nothing is. */
  colourAt(ray: Ray): Promise<string | null> {
    return this.o.give(() => this.o.worker.colourAt(ray));
  }

  /** Tells all of the painting to the view that looks now. */
  repaint(): Promise<void> {
    return this.o.changing(() => this.o.worker.repaint(), { key: 'repaint' });
  }
}
