import { execFile, spawn, type SpawnOptions } from 'node:child_process';

export interface Ran {
  code: number;
  stdout: string;
  stderr: string;
}
export const isRoot = (): boolean => process.getuid?.() === 0;

/** Runs a program to its end. Never throws for a non-zero end: the caller reads `code`. */
export function run(program: string, args: string[], options: { env?: NodeJS.ProcessEnv; cwd?: string } = {}): Promise<Ran> {
  return new Promise((resolve) => {
    execFile(program, args, { ...options, maxBuffer: 64 << 20 }, (error, stdout, stderr) => {
      const code = error ? (typeof error.code === 'number' ? error.code : 127) : 0;
      resolve({ code, stdout, stderr: stderr || (error && typeof error.code !== 'number' ? error.message : '') });
    });
  });
}
/** The same with its output shown to the person as it comes. */
export function show(program: string, args: string[], options: SpawnOptions = {}): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(program, args, { stdio: ['ignore', 'inherit', 'inherit'], ...options });
    child.on('error', () => resolve(127));
    child.on('exit', (code) => resolve(code ?? 1));
  });
}
/** Something that the person can mend; its message is shown without a stack. */
export class Stop extends Error {}
