/** Patches laid, moved, sized and turned by the pointer. */
import { faceNormal, pick } from '#core/mesh';
import { patchFrame, type Vec3 } from '#core/scan';
import { FrameSchema, settingAt, type Patch } from '#core/settings';
import { useScanBench } from '../stores/scanBench';
import type { BodyEye } from '../viewport/bodyEye';
import type { Grip } from './PatchFrames.vue';

export interface PatchHandsOptions {
  eye: () => BodyEye | null;
  surface: () => HTMLElement;
  /** The pointer moves the eye just now. */
  resting: () => boolean;
}

interface Hit {
  at: Vec3;
  /** Unit normal of the face that was hit, towards the eye. */
  face: Vec3;
}

export const clampSide = (side: number): number => {
  const { min, max } = settingAt(FrameSchema, 'side');
  return Math.max(min, Math.min(max, side));
};

export function usePatchHands({ eye, surface, resting }: PatchHandsOptions) {
  const bench = useScanBench();
  let under: { x: number; y: number } | null = null;

  function hitAt(x: number, y: number): Hit | null {
    const mesh = bench.mesh;
    const hit = mesh && eye() && pick(mesh, eye()!.ray(x, y));
    return hit ? { at: [hit.x, hit.y, hit.z], face: towardEye(faceNormal(mesh, hit.triangle)) } : null;
  }
  /** Of a face that is turned away its other side is meant. */
  function towardEye(normal: readonly [number, number, number]): Vec3 {
    const { toward } = eye()!.basis();
    const facing = normal[0] * toward[0] + normal[1] * toward[1] + normal[2] * toward[2];
    const length = Math.hypot(...normal) || 1;
    const sign = (facing < 0 ? -1 : 1) / length;
    return [normal[0] * sign, normal[1] * sign, normal[2] * sign];
  }

  /** A patch that is being laid, moved, sized or turned, and how it was before. */
  let held: { grip: Grip; patch: Patch; from: { x: number; y: number } } | null = null;
  /** Counts the times that a patch was taken hold of: each is a step of undo. */
  let times = 0;
  let laid: { id: string; at: Vec3; x: number; y: number } | null = null;

  const placeOf = (e: PointerEvent | MouseEvent): { x: number; y: number } => {
    const box = surface().getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };

  function down(e: PointerEvent): void {
    if (e.button !== 0 || resting() || !bench.laying) return;
    const { x, y } = placeOf(e);
    const hit = hitAt(x, y);
    const id = hit && bench.lay(hit.at, hit.face);
    if (!hit || !id) return;
    laid = { id, at: hit.at, x, y };
    eye()?.leftTurns(false);
    surface().setPointerCapture(e.pointerId);
  }

  function move(e: PointerEvent): void {
    const { x, y } = placeOf(e);
    under = { x, y };
    if (!laid) return eye()?.leftTurns(!resting() && !(bench.laying && hitAt(x, y)));
    const far = Math.hypot(x - laid.x, y - laid.y);
    if (far < 6) return;
    const side = clampSide((2 * far) / pixelsPerUnit(laid.at));
    const { id } = laid;
    bench.editPatch(id, 'lay', (patch) => (patch.cast.frame.side = side), true);
  }

  /** The patch that was laid lies as the surface under all of it does. */
  function up(): void {
    if (laid) bench.level(laid.id, 'lay');
    laid = null;
  }

  /** Of a patch that is being laid nothing is left. */
  function abandon(): void {
    const id = laid?.id;
    laid = null;
    held = null;
    while (bench.past.length > 0 && bench.doc?.patches.some((p) => p.id === id)) bench.undo();
  }

  function pixelsPerUnit(at: Vec3): number {
    const { right } = eye()!.basis();
    const step = 0.01;
    const a = eye()!.seen(at);
    const b = eye()!.seen([at[0] + right[0] * step, at[1] + right[1] * step, at[2] + right[2] * step]);
    return Math.hypot(a.x - b.x, a.y - b.y) / step;
  }

  function take(e: PointerEvent, id: string, grip: Grip): void {
    const patch = bench.doc?.patches.find((p) => p.id === id);
    if (!patch || e.button !== 0) return;
    bench.chosenId = id;
    times++;
    held = { grip, patch: JSON.parse(JSON.stringify(patch)) as Patch, from: placeOf(e) };
  }

  function drag(e: PointerEvent): void {
    if (!held || !bench.mesh) return;
    const { x, y } = placeOf(e);
    if (Math.hypot(x - held.from.x, y - held.from.y) < 3 && held.grip === 'move') return;
    const { patch } = held;
    const label = `${held.grip} ${times}`;
    const {
      at,
      right,
      up: along,
      out,
    } = patchFrame({ ...patch, cast: { ...patch.cast, frame: { ...patch.cast.frame, turn: 0 } } });
    if (held.grip === 'move') {
      // The place that was taken hold of stays under the pointer.
      const middle = eye()!.seen(at);
      const hit = hitAt(middle.x + x - held.from.x, middle.y + y - held.from.y);
      if (hit) bench.move(patch.id, hit.at, hit.face, label);
      return;
    }
    const place = onPlane(x, y, at, out);
    if (!place) return;
    const u = place.reduce((sum, p, k) => sum + (p - at[k]) * right[k], 0);
    const v = place.reduce((sum, p, k) => sum + (p - at[k]) * along[k], 0);
    if (held.grip === 'size') {
      const side = clampSide(Math.hypot(u, v) * Math.SQRT2);
      bench.editPatch(patch.id, label, (p) => (p.cast.frame.side = side), true);
    } else {
      const turn = (Math.atan2(v, u) * 180) / Math.PI - 90;
      // Whole steps of fifteen degrees are easy to hit.
      const near = Math.round(turn / 15) * 15;
      const next = Math.abs(turn - near) < 3 ? near : Math.round(turn);
      bench.editPatch(patch.id, label, (p) => (p.cast.frame.turn = ((next + 540) % 360) - 180), true);
    }
  }

  /** Where the ray through a point of the view meets the frame's plane. */
  function onPlane(x: number, y: number, at: Vec3, out: Vec3): Vec3 | null {
    const { origin: o, direction: d } = eye()!.ray(x, y);
    const slope = d[0] * out[0] + d[1] * out[1] + d[2] * out[2];
    if (Math.abs(slope) < 1e-4) return null;
    const t = ((at[0] - o[0]) * out[0] + (at[1] - o[1]) * out[1] + (at[2] - o[2]) * out[2]) / slope;
    return t > 0 ? [o[0] + d[0] * t, o[1] + d[1] * t, o[2] + d[2] * t] : null;
  }

  return {
    down,
    move,
    up,
    abandon,
    take,
    drag,
    letGo: () => (held = null),
    /** A patch is being laid. */
    isLaying: () => laid !== null,
    /** The place of the scan that is under the pointer. */
    placeUnder: () => (under ? (hitAt(under.x, under.y)?.at ?? null) : null),
  };
}
