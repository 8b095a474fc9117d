import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A server of its own, on a data folder that outlives it. */
export interface OwnServer {
  url: string;
  dataDir: string;
  /** Its process, while it runs. */
  pid: () => number;
  start: () => Promise<void>;
  /** Ends it as a power cut would. */
  kill: () => Promise<void>;
}

async function answers(url: string): Promise<boolean> {
  return fetch(url).then(
    (answer) => answer.ok,
    () => false,
  );
}

/** Runs a command to its end. */
function run(command: string, args: string[], env: NodeJS.ProcessEnv): Promise<void> {
  return new Promise((resolve, reject) => {
    spawn(command, args, { env, stdio: 'ignore' }).on('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`${command} ended with ${code}`)),
    );
  });
}

/**
 * @param scenes the folder of the scenes and plates that it starts with
 * @param dataDir its data folder; a new one unless it is given
 */
export async function ownServer(port: number, scenes = 'e2e', dataDir?: string): Promise<OwnServer> {
  const folder = dataDir ?? (await mkdtemp(join(tmpdir(), 'sundew-own-')));
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    PORT: String(port),
    SUNDEW_DATA: folder,
  } as const;
  const url = `http://127.0.0.1:${port}`;
  await run('npx', ['tsx', 'scripts/seed.ts', scenes], env);
  let child: ChildProcess | undefined;
  // A test that fails ends its process, not its server: that would answer the next test with what is old.
  process.once('exit', () => {
    if (child?.exitCode === null && child.signalCode === null) process.kill(-child.pid!, 'SIGKILL');
  });
  return {
    url,
    dataDir: folder,
    pid: () => child!.pid!,
    async start() {
      child = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: 'ignore', detached: true });
      while (!(await answers(`${url}/api/scenes`))) await new Promise((resolve) => setTimeout(resolve, 100));
    },
    async kill() {
      const gone = new Promise((resolve) => child!.on('exit', resolve));
      process.kill(-child!.pid!, 'SIGKILL');
      await gone;
    },
  };
}
