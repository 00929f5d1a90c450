/**
 * One process of the studio: jobs one after the other, each within a limit of time and memory. One that goes beyond is
 * ended with its process, native code and all, and refused with a sentence; the next job gets a new process.
 */
import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { packed } from '../packed';
import { closing, Problem } from '../problem';
import type { Job, JobResults } from './jobs';
import type { FromStudio, ToStudio } from './messages';

export interface Limits {
  seconds: number;
  /** Of the whole process. */
  megabytes: number;
  /** Thrown when the job went beyond them, or took its process with it. */
  refusal: Problem;
}

const LOOK_MS = 50;
const PAGE_BYTES = 4096;
/** Of the GNU C library: what a job took in one piece goes back to the system as soon as it is let go. */
const LET_GO = { MALLOC_MMAP_THRESHOLD_: String(2 ** 17) };
/** A process that has nothing to do for so long is let go. */
const IDLE_MS = 120_000;

function script(): { path: string; flags: string[] } {
  const path = packed('studio');
  if (path) return { path, flags: [] };
  return { path: fileURLToPath(new URL('./child.ts', import.meta.url)), flags: ['--import', 'tsx'] };
}

interface Pending {
  job: Job;
  limits: Limits;
  arrived: Record<string, string>;
  done: (value: unknown) => void;
  fail: (error: Error) => void;
}

export class Lane {
  private readonly row: Pending[] = [];
  private running: Pending | null = null;
  private child: ChildProcess | null = null;
  private ready: Promise<void> = Promise.resolve();
  private watch: NodeJS.Timeout | undefined;
  private idle: NodeJS.Timeout | undefined;
  private closed = false;

  /** `folder` holds the stored files. */
  constructor(private readonly folder: string) {}

  /** `arrived` says where files lie that have no name yet. */
  run<K extends Job['kind']>(
    job: Extract<Job, { kind: K }>,
    limits: Limits,
    arrived: Record<string, string> = {},
  ): Promise<JobResults[K]> {
    return new Promise<unknown>((done, fail) => {
      // Whoever asks while the server closes is answered too: it waits for them.
      if (this.closed) return fail(closing());
      this.row.push({ job, limits, arrived, done, fail });
      void this.next();
    }) as Promise<JobResults[K]>;
  }

  /** Starts the process ahead of the first job. */
  warm(): void {
    if (!this.closed) this.start();
  }

  /** How many jobs wait or run. */
  get length(): number {
    return this.row.length + (this.running ? 1 : 0);
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.idle);
    const error = closing();
    for (const { fail } of this.row.splice(0)) fail(error);
    this.finish(null, error);
    this.child?.kill('SIGKILL');
  }

  private async next(): Promise<void> {
    if (this.running || this.closed) return;
    const wanted = this.row.shift();
    if (!wanted) return;
    clearTimeout(this.idle);
    this.running = wanted;
    this.start();
    await this.ready;
    if (this.running !== wanted || !this.child) return;
    const { seconds, megabytes } = wanted.limits;
    const began = Date.now();
    this.watch = setInterval(() => {
      if (Date.now() - began > seconds * 1000 || megabytesOf(this.child) > megabytes) this.end();
    }, LOOK_MS);
    this.send({ job: wanted.job, arrived: wanted.arrived });
  }

  private start(): void {
    if (this.child) return;
    const { path, flags } = script();
    const child = fork(path, [this.folder], {
      serialization: 'advanced',
      execArgv: [...flags, '--max-old-space-size=2048'],
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: { ...process.env, NODE_OPTIONS: '', ...LET_GO },
    });
    this.child = child;
    this.ready = new Promise<void>((done) => {
      child.once('message', () => done());
      child.once('exit', () => done());
    });
    child.on('message', (message: FromStudio) => this.hear(child, message));
    child.once('exit', () => {
      if (this.child === child) this.end();
    });
    // An idle process is no reason for the server to stay.
    child.unref();
    child.channel?.unref();
  }

  private hear(child: ChildProcess, message: FromStudio): void {
    const { running } = this;
    if (child !== this.child || !running) return;
    switch (message.kind) {
      case 'ready':
        return;
      case 'done':
        return this.finish(message.value);
      case 'failed': {
        const { problem } = message;
        const error = problem
          ? new Problem(problem.status, problem.code, message.message, problem.details)
          : new Error(message.message);
        if (!problem && message.stack) error.stack = message.stack;
        return this.finish(null, error);
      }
    }
  }

  private send(message: ToStudio): void {
    // A process that died meanwhile is noticed by its exit.
    this.child?.send(message, () => undefined);
  }

  /** The process is gone, or is to go, with what runs in it. */
  private end(): void {
    const { child, running } = this;
    this.child = null;
    child?.kill('SIGKILL');
    if (running) this.finish(null, running.limits.refusal);
  }

  private finish(value: unknown, error?: Error): void {
    clearInterval(this.watch);
    const { running } = this;
    this.running = null;
    if (running && error) running.fail(error);
    else running?.done(value);
    if (this.closed) return;
    this.idle = setTimeout(() => {
      if (this.running) return;
      const { child } = this;
      this.child = null;
      child?.kill('SIGKILL');
    }, IDLE_MS);
    this.idle.unref();
    void this.next();
  }
}

/** Memory of a process that is really used; 0 where the system doesn't say, and the time alone is the limit. */
function megabytesOf(child: ChildProcess | null): number {
  if (!child?.pid) return 0;
  try {
    return (Number(readFileSync(`/proc/${child.pid}/statm`, 'latin1').split(' ')[1]) * PAGE_BYTES) / 2 ** 20;
  } catch {
    return 0;
  }
}
