/** Long work that goes on while one goes from place to place: what it is, how far it is, and how it is stopped. */
import { defineStore } from 'pinia';
import { computed, reactive, ref } from 'vue';

export interface Work {
  id: number;
  /** What it is done to: the id of a document. */
  on: string;
  /** E.g. "Casting “Crate marks”". */
  what: string;
  /** E.g. "3 of 20". */
  detail: string;
  /** 0–1. */
  share: number;
  began: number;
  cancel: () => void;
}

export interface WorkHand {
  report: (share: number, detail?: string) => void;
  /** What stops the part that runs now; called at once when Cancel was pressed before. */
  onCancel: (stop: () => void) => void;
  readonly cancelled: boolean;
}

export const useWork = defineStore('work', () => {
  const running = ref<Work[]>([]);
  let ids = 0;

  /** Runs it; it is listed until it has ended, in whatever way. */
  async function run<T>(what: string, on: string, task: (hand: WorkHand) => Promise<T>): Promise<T> {
    let stop: () => void = () => undefined;
    let cancelled = false;
    const work: Work = reactive({
      id: ++ids,
      on,
      what,
      detail: '',
      share: 0,
      began: Date.now(),
      cancel: () => {
        cancelled = true;
        stop();
      },
    });
    running.value.push(work);
    try {
      return await task({
        report: (share, detail = '') => void Object.assign(work, { share: Math.max(0, Math.min(1, share)), detail }),
        onCancel: (next) => {
          stop = next;
          if (cancelled) next();
        },
        get cancelled() {
          return cancelled;
        },
      });
    } finally {
      running.value = running.value.filter((w) => w.id !== work.id);
    }
  }

  /** What is being done to a document. */
  function find(on: string | undefined): Work | null {
    return running.value.find((w) => w.on === on) ?? null;
  }

  /** Of all that runs, 0–1; null while nothing does. */
  const share = computed(() =>
    running.value.length ? running.value.reduce((sum, w) => sum + w.share, 0) / running.value.length : null,
  );

  /** What came of work whose place was left; shown wherever one is. */
  const said = ref<{ message: string; failed: boolean } | null>(null);
  function say(message: string, failed = false): void {
    said.value = { message, failed };
  }

  return { running, share, said, run, find, say };
});

/** Seconds that are left, from how long the share took that is done; null as long as that says nothing. */
export function secondsLeft(work: Pick<Work, 'share' | 'began'>, now: number): number | null {
  const gone = (now - work.began) / 1000;
  return work.share < 0.03 || gone < 1 ? null : (gone / work.share) * (1 - work.share);
}
