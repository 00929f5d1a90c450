/** Pieces that become part of a body as they are: their faces beside its own, nothing cut, open ones too. */
import { together, type Carried, type RawMesh } from '#core/mesh';
import type { Named } from './merge';
import { coordinatesBeside } from './textured';

/**
 * The body and all of these as one mesh. Where the body has texture coordinates, so has all of it, and those of the
 * body stay: what was painted fits. Throws a sentence where the texture has no room for the pieces.
 */
export function joinedTo(body: Named, pieces: readonly Named[]): RawMesh {
  const own = body.mesh.carried?.coordinates ?? null;
  const meshes = pieces.map(({ mesh }) => mesh);
  const raw = together([body.mesh, ...meshes]);
  const groups = groupsOf(body, pieces);
  if (!own && !groups) return raw;
  let coordinates: Float32Array | null = null;
  if (own) {
    coordinates = new Float32Array(raw.triangles.length * 2);
    let at = 0;
    for (const run of [own, ...coordinatesBeside(own, meshes)]) {
      coordinates.set(run, at);
      at += run.length;
    }
  }
  return { ...raw, carried: { coordinates, groups } };
}

/** A body in groups gets one for each name of a piece. */
function groupsOf({ mesh }: Named, pieces: readonly Named[]): Carried['groups'] {
  const own = mesh.carried?.groups;
  if (!own) return null;
  const names = [...new Set([...own.names, ...pieces.map(({ name }) => name)])];
  const of = new Uint16Array(
    mesh.triangles.length / 3 + pieces.reduce((sum, p) => sum + p.mesh.triangles.length / 3, 0),
  );
  of.set(own.of);
  let at = own.of.length;
  for (const piece of pieces) {
    const end = at + piece.mesh.triangles.length / 3;
    of.fill(names.indexOf(piece.name), at, end);
    at = end;
  }
  return { names, of };
}
