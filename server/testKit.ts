/** The server as a process of its own, for tests that stop, kill and restart it. */
import { spawn, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');

export interface Spawned {
  process: ChildProcess;
  address: string;
  /** Sends the signal and waits for the end; the exit code, null when it was killed. */
  end(signal: 'SIGTERM' | 'SIGKILL'): Promise<number | null>;
}

/** How a server is started: as it was packed, or from its sources where nothing was packed for these tests. */
export const PACKED = ['build/server.mjs'];
export const SERVER = process.env['MOLDSTAMP_PACKED'] ? PACKED : ['--import', 'tsx', 'server/main.ts'];
/** The database's code is compiled once and quickly: a test's server lives for seconds. */
const QUICKLY = '--liftoff-only';

/** Starts on `port` (0 takes any) with the data in `folder`; `template` '' begins with an empty database. */
export async function spawnServer(
  folder: string,
  port: string,
  from: readonly string[],
  template?: string,
): Promise<Spawned> {
  const env: NodeJS.ProcessEnv = { ...process.env, NODE_OPTIONS: '', PORT: port, MOLDSTAMP_DATA: folder };
  if (template !== undefined) env['MOLDSTAMP_TEMPLATE'] = template;
  const child = spawn(process.execPath, [QUICKLY, ...from], { cwd: root, env, stdio: ['ignore', 'pipe', 'inherit'] });
  const ended = new Promise<number | null>((done) => child.once('exit', done));
  const address = await new Promise<string>((done, fail) => {
    let text = '';
    child.stdout.on('data', (part: Buffer) => {
      text += part.toString();
      const found = /http:\S+/.exec(text);
      if (found) done(found[0]);
    });
    void ended.then((code) => fail(new Error(`The server ended with ${code}.`)));
  });
  return {
    process: child,
    address,
    end: (signal) => {
      child.kill(signal);
      return ended;
    },
  };
}
