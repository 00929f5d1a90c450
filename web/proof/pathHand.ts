/**
 * A path on the body: nodes clicked and dragged on its surface, laid anew with every change, kept or abandoned as one
 * stroke.
 */
import { computed, ref } from 'vue';
import { faceNormal, pick, type MeshArrays, type Ray } from '#core/mesh';
import type { Brush, Symmetry } from '#core/settings';
import { pathSamples, type PathNode, type StencilRows, type View } from '#core/stroke';
import type { Sculptor } from '../workers/sculptor';

export interface PathOptions {
  sculptor: Sculptor;
  /** What the pointer meets; null is the body. */
  ground?: () => MeshArrays | null;
  brush: () => Brush;
  start: () => { view: View; symmetry: Symmetry; dig: boolean; stencil?: StencilRows; on?: readonly string[] };
}

export function usePath(o: PathOptions) {
  const nodes = ref<PathNode[]>([]);
  const closed = ref(false);
  const open = computed(() => nodes.value.length > 0);
  let seed = 1;

  /** The node under a ray, or null beside the body. The body is asked as it is, with the row that lies on it. */
  function nodeAt(ray: Ray): PathNode | null {
    const mesh = o.ground?.() ?? o.sculptor.mesh;
    const hit = mesh && pick(mesh, ray);
    if (!hit || !mesh) return null;
    const n = faceNormal(mesh, hit.triangle);
    const length = Math.hypot(n[0], n[1], n[2]) || 1;
    return { point: [hit.x, hit.y, hit.z], normal: [n[0] / length, n[1] / length, n[2] / length] };
  }

  const begin = () => ({ brushId: o.brush().id, seed, ...o.start() });
  const samples = () => pathSamples(JSON.parse(JSON.stringify(nodes.value)) as PathNode[], closed.value);

  function redraw(): void {
    if (open.value) void o.sculptor.drawPath(begin(), samples()).catch(() => undefined);
  }

  /** Answers the node's number, or −1 beside the body. */
  function add(ray: Ray): number {
    const node = nodeAt(ray);
    if (!node) return -1;
    nodes.value = [...nodes.value, node];
    redraw();
    return nodes.value.length - 1;
  }

  function move(index: number, ray: Ray): void {
    const node = nodeAt(ray);
    if (!node || !nodes.value[index]) return;
    nodes.value = nodes.value.map((n, i) => (i === index ? { ...node, corner: n.corner ?? false } : n));
    redraw();
  }

  async function remove(index = nodes.value.length - 1): Promise<void> {
    if (nodes.value.length <= 1) return void (await abandon());
    nodes.value = nodes.value.filter((_, i) => i !== index);
    redraw();
  }

  /** The curve turns sharply at a corner, and is smooth through any other node. */
  function toggleCorner(index: number): void {
    nodes.value = nodes.value.map((n, i) => (i === index ? { ...n, corner: !n.corner } : n));
    redraw();
  }

  function toggleClosed(): void {
    closed.value = !closed.value;
    redraw();
  }

  /** Laid as it stands now, whatever was done to the body meanwhile, it becomes a stroke. */
  async function keep(): Promise<boolean> {
    if (!open.value) return false;
    const kept = o.sculptor.keepPath(begin(), samples());
    nodes.value = [];
    closed.value = false;
    seed++;
    await kept;
    return true;
  }

  async function abandon(): Promise<boolean> {
    if (!open.value) return false;
    nodes.value = [];
    closed.value = false;
    await o.sculptor.dropPath();
    return true;
  }

  return { nodes, closed, open, add, move, remove, toggleCorner, toggleClosed, again: redraw, keep, abandon };
}
