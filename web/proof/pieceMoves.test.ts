import { seeded } from '#core/random';
import { placed, type Placement } from '#core/scene';
import { cross, dot, length, scaled, unit, type Vec3 } from '#core/vector';
import { Matrix4, Quaternion, Vector3 } from 'three';
import { acrossMiddle, carried, resized, transformed, turned, turnOf } from './pieceMoves';

const random = seeded(4);
const way = (): Vec3 => unit([random() - 0.5, random() - 0.5, random() - 0.5]);
function anywhere(): Placement {
  const up = way();
  const forward = unit(cross(up, way()));
  const size = 0.1 + random();
  return {
    origin: scaled(way(), random() * 2),
    across: scaled(cross(forward, up), size),
    forward: scaled(forward, size),
    up: scaled(up, size),
  };
}
const close = (a: Vec3, b: Vec3): void => a.forEach((x, k) => expect(x).toBeCloseTo(b[k]!, 9));
const handOf = ({ across, forward, up }: Placement): number => Math.sign(dot(cross(across, forward), up));

test('sizing and turning keep the rest point, and what they don’t speak of', () => {
  for (let n = 0; n < 50; n++) {
    const at = anywhere();
    const by = 0.5 + random();
    const larger = resized(at, by);
    expect(larger.origin).toBe(at.origin);
    expect(length(larger.across)).toBeCloseTo(length(at.across) * by, 9);
    const round = turned(turned(at, 1), -1);
    close(round.across, at.across);
    close(turned(at, 0.7).up, at.up);
  }
});

test('a turn that is asked for is the turn it has then', () => {
  for (let n = 0; n < 50; n++) {
    const at = n % 3 ? anywhere() : acrossMiddle(anywhere());
    const wanted = random() * 6 - 3;
    expect(turnOf(turned(at, wanted - turnOf(at)))).toBeCloseTo(wanted, 9);
  }
});

test('mirrored twice it is where it was; once, its faces are turned', () => {
  for (let n = 0; n < 50; n++) {
    const at = anywhere();
    expect(handOf(acrossMiddle(at))).toBe(-handOf(at));
    close(acrossMiddle(acrossMiddle(at)).across, at.across);
  }
});

test('carried along, the one in hand stands upright at the new place and those with it keep their distance', () => {
  for (let n = 0; n < 50; n++) {
    const [lead, other, to, normal] = [anywhere(), anywhere(), way(), way()];
    const moved = carried(lead, lead, to, normal);
    close(moved.origin, to);
    close(unit(moved.up), normal);
    const with_ = carried(other, lead, to, normal);
    const apart = (a: Placement, b: Placement): number => length(a.origin.map((x, k) => x - b.origin[k]!) as never);
    expect(apart(with_, moved)).toBeCloseTo(apart(other, lead), 9);
  }
});

test('moved with space, every place of it goes where space goes', () => {
  for (let n = 0; n < 50; n++) {
    const at = anywhere();
    const m = new Matrix4().compose(
      new Vector3(random(), random(), random()),
      new Quaternion().setFromAxisAngle(new Vector3(...way()), random() * 3),
      new Vector3(0.5 + random(), 0.5 + random(), 0.5 + random()),
    );
    const there = transformed(at, m.toArray());
    const place: Vec3 = [random(), random(), random()];
    const moved = new Vector3(...placed(at, ...place)).applyMatrix4(m);
    close(placed(there, ...place), moved.toArray());
  }
});
