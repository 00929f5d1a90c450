/** Parts captured by hand: a press takes the component under it, a drag draws a lasso round a region. */
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { pick } from '#core/mesh';
import { useScanBench } from '../stores/scanBench';
import { useScanParts } from '../stores/scanParts';
import type { BodyEye } from '../viewport/bodyEye';

export interface CaptureHandsOptions {
  eye: () => BodyEye | null;
  surface: () => HTMLElement;
  /** The pointer moves the eye just now. */
  resting: () => boolean;
}

/** Corners of a lasso lie at least this far from each other, CSS pixels. */
const STEP_PX = 3;

export function useCaptureHands({ eye, surface, resting }: CaptureHandsOptions) {
  const bench = useScanBench();
  const parts = useScanParts();
  const router = useRouter();
  /** As it is drawn, CSS pixels. */
  const lasso = ref<{ x: number; y: number }[]>([]);

  const placeOf = (e: PointerEvent): { x: number; y: number } => {
    const box = surface().getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };

  /** Whether the press was one of these hands’. */
  function down(e: PointerEvent): boolean {
    if (e.button !== 0 || resting() || !parts.mode || parts.busy || !eye() || !bench.mesh) return false;
    const at = placeOf(e);
    if (parts.mode === 'component') {
      const hit = pick(bench.mesh, eye()!.ray(at.x, at.y));
      if (!hit) return false;
      void keep(parts.capture({ kind: 'component', triangle: hit.triangle }, null));
      return true;
    }
    lasso.value = [at];
    eye()!.leftTurns(false);
    surface().setPointerCapture(e.pointerId);
    return true;
  }

  function move(e: PointerEvent): boolean {
    const last = lasso.value.at(-1);
    if (!last) return false;
    const at = placeOf(e);
    if (Math.hypot(at.x - last.x, at.y - last.y) >= STEP_PX) lasso.value = [...lasso.value, at];
    return true;
  }

  function up(): boolean {
    const drawn = lasso.value;
    if (drawn.length === 0) return false;
    lasso.value = [];
    if (drawn.length < 3 || !eye()) return true;
    const { toward, up: screenUp } = eye()!.basis();
    void keep(
      parts.capture({ kind: 'region', lasso: eye()!.lasso(drawn), toEye: toward }, { up: toward, forward: screenUp }),
    );
    return true;
  }

  function abandon(): boolean {
    const was = lasso.value.length > 0;
    lasso.value = [];
    return was;
  }

  async function keep(captured: Promise<string | null>): Promise<void> {
    const id = await captured;
    if (id && router.currentRoute.value.name === 'scan') await router.push(`/bench/part/${id}`);
  }

  return { lasso, down, move, up, abandon, keep };
}
