/**
 * What hangs together with the point that a dab was set on, within the dab: paint doesn’t get onto the other lip, nor
 * onto the plinth under the chest.
 */
import type { DabFrame } from '#core/brush';
import { nearest, RING_VERTEX, type MeshArrays } from '#core/mesh';
import type { PaintForm } from './cover';

export class Connected {
  /** Stamp of the last dab that reached each vertex. */
  private readonly marks: Uint32Array;
  private stamp = 0;
  private readonly list: number[] = [];

  constructor(private readonly mesh: MeshArrays) {
    this.marks = new Uint32Array(mesh.vertexCount);
  }

  /** Begins at the triangle that was hit; at the nearest one where it isn’t said. O(vertices in the dab). */
  reach(frame: DabFrame, form: PaintForm, triangle: number | null): void {
    const { mesh, marks, list } = this;
    const stamp = ++this.stamp;
    const from = triangle ?? nearest(mesh, ...frame.origin)?.triangle;
    list.length = 0;
    if (from === undefined) return;
    const take = (vertex: number): void => {
      marks[vertex] = stamp;
      list.push(vertex);
    };
    for (let k = 0; k < 3; k++) take(mesh.triangles[from * 3 + k]);
    const { ringStarts, rings } = mesh;
    for (let next = 0; next < list.length; next++) {
      const vertex = list[next];
      for (let k = ringStarts[vertex]; k < ringStarts[vertex + 1]; k++) {
        const other = rings[k] & RING_VERTEX;
        if (marks[other] !== stamp && this.isInside(other, frame, form)) take(other);
      }
    }
  }

  /** Whether a corner of the triangle was reached by the last dab. */
  has(triangle: number): boolean {
    const { mesh, marks, stamp } = this;
    const at = triangle * 3;
    return (
      marks[mesh.triangles[at]] === stamp ||
      marks[mesh.triangles[at + 1]] === stamp ||
      marks[mesh.triangles[at + 2]] === stamp
    );
  }

  private isInside(
    vertex: number,
    { origin: o, tangent: t, bitangent: b, normal: n, radius }: DabFrame,
    form: PaintForm,
  ) {
    const { positions: p } = this.mesh;
    const at = vertex * 3;
    const [x, y, z] = [(p[at] - o[0]) / radius, (p[at + 1] - o[1]) / radius, (p[at + 2] - o[2]) / radius];
    if (Math.abs(x * n[0] + y * n[1] + z * n[2]) > form.reach) return false;
    const u = x * t[0] + y * t[1] + z * t[2];
    const v = x * b[0] + y * b[1] + z * b[2];
    return form.square ? Math.abs(u) <= 1 && Math.abs(v) <= 1 : u * u + v * v <= 1;
  }
}
