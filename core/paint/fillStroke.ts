/** A press that fills: everything, what hangs together, an island, or what is of one colour. Masks hold it off. */
import type { ResolvedPaint } from '#core/brush';
import { linearOf, type Linear } from '#core/colour';
import { LEAF } from '#core/mesh';
import type { Places, TilePlaces } from './places';
import { islands, likeColour, looseParts, type Region } from './regions';
import { FULL, tilesAcross, TILE, TILE_WORDS, type Texture } from './texture';
import { TileEdits } from './tileEdits';

export interface FillOptions extends Pick<
  ResolvedPaint,
  'first' | 'second' | 'opacity' | 'flow' | 'fills' | 'tolerance'
> {
  locked: boolean;
}

/** Where the hand pressed. */
export interface FillPlace {
  frame: { origin: readonly [number, number, number] };
  /** Null for a copy under symmetry, which fills nothing of its own. */
  triangle: number | null;
}

export class FillStroke {
  private readonly edits: TileEdits;
  private filled = false;

  constructor(
    private readonly on: Texture,
    private readonly places: Places,
    private readonly o: FillOptions,
  ) {
    this.edits = new TileEdits(on);
  }

  /** The first place of a stroke fills; answers how many tiles it changed. `turned` fills with the second colour. */
  fill({ frame, triangle }: FillPlace, turned: boolean, changed: Set<number>): number {
    if (triangle === null || this.filled) return 0;
    this.filled = true;
    const colour = linearOf(turned ? this.o.second : this.o.first);
    switch (this.o.fills) {
      case 'all':
        this.fillAll(colour, changed);
        break;
      case 'part':
        this.fillFaces(looseParts(this.places.atlas.mesh), triangle, colour, changed);
        break;
      case 'island':
        this.fillFaces(islands(this.places.atlas), triangle, colour, changed);
        break;
      case 'colour':
        this.fillRegion(likeColour(this.places, this.on, triangle, frame.origin, this.o.tolerance), colour, changed);
    }
    return changed.size;
  }

  rewind(): Set<number> {
    this.filled = false;
    return this.edits.rewind();
  }

  end(): ReadonlyMap<number, Uint16Array | null> {
    return this.edits.before;
  }

  /** Tiles that no mask touches and nothing shines through are one tile, shared. */
  private fillAll(colour: Linear, changed: Set<number>): void {
    const whole = this.o.opacity * this.o.flow >= 1 && !this.o.locked;
    const shared = new Uint16Array(TILE_WORDS);
    for (let i = 0; i < TILE_WORDS; i += 4) put(shared, i, colour, 1, false);
    const masked = maskedTiles(this.places);
    for (let tile = 0; tile < tilesAcross(this.on) ** 2; tile++) {
      if (masked.has(tile)) this.fillTile(tile, colour, null, changed);
      else if (whole) this.edits.replace(tile, shared, changed);
      else if (!this.o.locked || this.on.tiles.has(tile)) {
        const words = this.edits.open(tile);
        for (let i = 0; i < TILE_WORDS; i += 4) put(words, i, colour, this.o.opacity * this.o.flow, this.o.locked);
        changed.add(tile);
      }
    }
  }

  private fillFaces(of: Uint32Array, triangle: number, colour: Linear, changed: Set<number>): void {
    const { starts, triangles } = this.places.atlas;
    const wanted = of[triangle];
    for (let tile = 0; tile < starts.length - 1; tile++) {
      let met = false;
      for (let i = starts[tile]; i < starts[tile + 1] && !met; i++) met = of[triangles[i]] === wanted;
      if (met) this.fillTile(tile, colour, (here, i) => of[here.triangle[i]] === wanted, changed);
    }
  }

  private fillRegion(region: Region, colour: Linear, changed: Set<number>): void {
    for (const [tile, within] of region) this.fillTile(tile, colour, (here, i) => within[here.at[i]] === 1, changed);
  }

  private fillTile(
    tile: number,
    colour: Linear,
    belongs: ((here: TilePlaces, entry: number) => boolean) | null,
    changed: Set<number>,
  ): void {
    const here = this.places.of(tile);
    if (!here) return;
    const words = this.edits.open(tile);
    changed.add(tile);
    const met = new Uint8Array(TILE * TILE);
    const share = this.o.opacity * this.o.flow;
    for (let i = 0; i < here.count; i++) {
      const at = here.at[i];
      if (met[at] || (belongs && !belongs(here, i))) continue;
      met[at] = 1;
      put(words, at * 4, colour, (share * here.free[i]) / 255, this.o.locked);
    }
  }
}

function put(words: Uint16Array, at: number, colour: Linear, share: number, locked: boolean): void {
  const over = share * (locked ? words[at + 3] : FULL);
  for (let k = 0; k < 3; k++) words[at + k] = words[at + k] * (1 - share) + colour[k] * over + 0.5;
  if (!locked) words[at + 3] = words[at + 3] * (1 - share) + over + 0.5;
}

/** Tiles that have something under a mask. */
function maskedTiles({ atlas: { mesh, leafStarts, leafTiles } }: Places): Set<number> {
  const out = new Set<number>();
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) {
    const own = mesh.mask.subarray(leaf * LEAF, Math.min((leaf + 1) * LEAF, mesh.vertexCount));
    if (own.some((m) => m > 0)) for (let k = leafStarts[leaf]; k < leafStarts[leaf + 1]; k++) out.add(leafTiles[k]);
  }
  return out;
}
