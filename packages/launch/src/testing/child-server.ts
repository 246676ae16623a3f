import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { ROOT } from '../places.ts';

/** The server alone, in a process of its own that can be killed at any moment. */
export class ChildServer {
  url = '';
  private child: ChildProcess | null = null;

  constructor(
    private readonly databaseUrl: string,
    private readonly spool: string,
    private readonly level = 'silent',
  ) {}

  async start(): Promise<void> {
    const own = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], {
      env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: this.databaseUrl, FADENWEG_SPOOL: this.spool, LOG_LEVEL: this.level },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = own;
    let said = '';
    this.url = await new Promise<string>((resolve, reject) => {
      own.stdout!.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        const url = /ready at (\S+)/.exec(said)?.[1];
        if (url) resolve(url);
      });
      own.once('exit', () => reject(new Error(`the server ended before it was ready: ${said}`)));
    });
    own.once('exit', (code, signal) => {
      if (this.child === own) this.ended = `${code ?? signal}`;
    });
  }
  /** How it ended by itself, which it never should; null where it did not. */
  ended: string | null = null;
  async kill(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    child.kill(signal);
    await once(child, 'exit');
  }
}
