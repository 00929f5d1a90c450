/** Stamps settle on guides while a key is held: places of the view go to places of the view, by way of the clay. */
import { pick, type MeshArrays, type Ray } from '#core/mesh';
import { settled, type Guides, type PlanePlace, type View } from '#core/stroke';

export type GuideLook = Pick<Guides, 'centre' | 'grid' | 'step'>;

export interface SettlingEye {
  ray(x: number, y: number): Ray;
  seen(point: readonly [number, number, number]): { x: number; y: number };
  basis(): View;
}

export interface SettlingOptions {
  eye: SettlingEye;
  mesh: () => MeshArrays | null;
  guides: () => GuideLook;
}

interface ViewPlace {
  x: number;
  y: number;
}

/** Body units. */
const REACH = 0.08;
/** Clay that isn’t flat is looked at again where the place has gone to. */
const LOOKS = 4;

export class Settling {
  /** Whether the key is held. */
  held = false;
  private stamps: (readonly [number, number, number])[] = [];

  constructor(private readonly o: SettlingOptions) {}

  /** The two body axes that lie most across the view; guides are drawn along them. */
  axes(): readonly [0 | 1 | 2, 0 | 1 | 2] {
    const { toward } = this.o.eye.basis();
    const [x, y, z] = toward.map(Math.abs) as [number, number, number];
    return z >= x && z >= y ? [0, 1] : y >= x ? [0, 2] : [2, 1];
  }

  settle(at: ViewPlace): ViewPlace {
    const mesh = this.o.mesh();
    const hit = this.held && mesh ? pick(mesh, this.o.eye.ray(at.x, at.y)) : null;
    if (!hit) return at;
    const [a, b] = this.axes();
    const place: [number, number, number] = [hit.x, hit.y, hit.z];
    const [x, y] = settled([place[a], place[b]], { ...this.o.guides(), line: this.line(a, b) }, REACH);
    return this.at(place, [x, y]) ?? at;
  }

  /** The same for a place on a slab, body units. */
  onSlab(at: PlanePlace): PlanePlace {
    return this.held ? settled(at, { ...this.o.guides(), line: this.line(0, 1) }, REACH) : at;
  }

  /** Where a typed place lies in the view; null where there is no clay. */
  typed(x: number, y: number): ViewPlace | null {
    return this.at([0, 0, 0], [x, y]);
  }

  /** A stamp was laid there: the next ones may settle on the line through it and the one before. */
  stamped(origin: readonly [number, number, number]): void {
    this.stamps = [...this.stamps.slice(-1), origin];
  }

  private at(from: [number, number, number], [x, y]: PlanePlace): ViewPlace | null {
    const mesh = this.o.mesh();
    if (!mesh) return null;
    const [a, b] = this.axes();
    const place = from;
    let found = false;
    for (let look = 0; look < LOOKS; look++) {
      place[a] = x;
      place[b] = y;
      const seen = this.o.eye.seen(place);
      const hit = pick(mesh, this.o.eye.ray(seen.x, seen.y));
      if (!hit) break;
      found = true;
      [place[0], place[1], place[2]] = [hit.x, hit.y, hit.z];
    }
    place[a] = x;
    place[b] = y;
    return found ? this.o.eye.seen(place) : null;
  }

  private line(a: 0 | 1 | 2, b: 0 | 1 | 2): Guides['line'] {
    const [first, second] = this.stamps;
    return first && second
      ? [
          [first[a], first[b]],
          [second[a], second[b]],
        ]
      : null;
  }
}
