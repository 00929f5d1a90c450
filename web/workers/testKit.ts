/** Stands in for a worker in tests: its script runs in the same thread, messages are copied as between threads. */
import { seeded } from '#core/random';

interface Replaced {
  /** Puts back what was there. */
  restore(): void;
}

type Hear = (e: { data: unknown; origin: string }) => void;

/** One end of the line: those who listen there. */
interface End {
  listeners: Set<Hear>;
  addEventListener(type: string, hear: Hear): void;
  removeEventListener(type: string, hear: Hear): void;
}

function end(): End {
  const listeners = new Set<Hear>();
  return {
    listeners,
    addEventListener: (type, hear) => void (type === 'message' && listeners.add(hear)),
    removeEventListener: (_, hear) => void listeners.delete(hear),
  };
}

/** Where the pages listen. Every answer names the call it belongs to, so that all may hear all of them. */
const outside = end();
/**
 * Where each script listens. Tests share a process, and in it a script runs once: whoever loads it again finds it
 * there.
 */
const insides = new Map<string, End>();

/**
 * Makes these the scripts of workers, by the names of their files; whatever is then made as a Worker of one talks to
 * it.
 */
export async function asWorkers(scripts: Record<string, () => Promise<unknown>>): Promise<Replaced> {
  const deliver =
    (to: End) =>
    (data: unknown, transfer: Transferable[] = []): void => {
      const copy: unknown = structuredClone(data, { transfer });
      setImmediate(() => [...to.listeners].forEach((hear) => hear({ data: copy, origin: '' })));
    };
  class Standin {
    addEventListener = outside.addEventListener;
    removeEventListener = outside.removeEventListener;
    postMessage: ReturnType<typeof deliver>;
    constructor(script: URL) {
      const inside = insides.get(script.pathname.split('/').pop()!);
      if (!inside) throw new Error(`${script.pathname} is no script of this test.`);
      const send = deliver(inside);
      // A page that was thrown away ends its own worker; here the script is everybody's and stays.
      this.postMessage = (data, transfer) => {
        if ((data as { type?: string }).type !== 'RELEASE') send(data, transfer);
      };
    }
    terminate(): void {
      // The thread is everybody's.
    }
  }
  const names = ['addEventListener', 'removeEventListener', 'postMessage', 'Worker', 'window', 'reportError'] as const;
  const before = names.map((name) => Object.getOwnPropertyDescriptor(globalThis, name));
  Object.assign(globalThis, {
    postMessage: deliver(outside),
    Worker: Standin,
    window: globalThis,
    reportError: () => undefined,
  });
  for (const [name, load] of Object.entries(scripts)) {
    if (insides.has(name)) continue;
    const inside = end();
    insides.set(name, inside);
    Object.assign(globalThis, {
      addEventListener: inside.addEventListener,
      removeEventListener: inside.removeEventListener,
    });
    await load();
  }
  return {
    restore() {
      names.forEach((name, i) => {
        if (before[i]) Object.defineProperty(globalThis, name, before[i]);
        else Reflect.deleteProperty(globalThis, name);
      });
      // An answer that is still on its way is heard by nobody.
      Object.assign(globalThis, { postMessage: () => undefined });
    },
  };
}

/** Lets the thread go on by a seeded number of turns, from none to some. */
export function breath(seed: number): () => Promise<void> {
  const random = seeded(seed);
  return async () => {
    for (let n = Math.floor(random() * 4); n > 0; n--) await new Promise((done) => setImmediate(done));
  };
}

/** Whether two rows of numbers are the same, without a list of what isn't. */
export function same(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i], b[i])) return false;
  return true;
}
