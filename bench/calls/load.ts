import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Random } from '@fadenweg/standin';
import { install } from '../../packages/launch/src/packages.ts';
import { Agent, type Tie } from './agent.ts';
import { COURSES, scenarioOf } from './scenarios.ts';
import { blocksOf, timesOf, type CallTimes } from './load-truth.ts';

/** A call that was drawn, and how it went as the caller's own records tell it. */
export interface DrawnCall {
  course: string;
  caller: string;
  called: string;
  /** Names of its two sides: one where nobody stands between. */
  callIds: string[];
  times: CallTimes;
}
export interface DrawnCalls {
  /** A folder with logs of two places, and of what stands between. */
  logs: string;
  tie: Tie | 'straight';
  calls: DrawnCall[];
}
const COPIED = new Date(Date.now() + 7 * 86_400_000);
const EACH = 8;
const GENERATOR = '/usr/bin/sipp';

/**
 * Calls of a load generator, captured where they begin and where they end, by two clocks.
 *
 * @param folder emptied before
 */
export async function drawCalls(folder: string, seed: number, tie: DrawnCalls['tie']): Promise<DrawnCalls> {
  if (!existsSync(GENERATOR)) await install(['sip-tester'], 'Calls are made by it');
  await rm(folder, { recursive: true, force: true });
  for (const name of ['near', 'far', 'logs/gate-near', 'logs/gate-far', 'logs/bridge']) await mkdir(join(folder, name), { recursive: true });
  const random = new Random(seed);
  const behind = random.whole(40, 4000) * (random.chance(0.5) ? 1 : -1);
  const names = Object.keys(COURSES);
  const port = 20_000 + (seed % 50) * 100;
  const plan = names.flatMap((course, kind) =>
    Array.from({ length: EACH }, (_, i) => {
      // a few people ring two numbers again and again; a number is written as its phone writes it
      const number = 100 + kind * 20;
      const called = `${random.pick(['+4930', '004930', '030'])}23125${number + random.whole(0, 1)}`;
      return { course, caller: `+493023125${number + 2 + random.whole(0, i % 2 === 0 ? 2 : 7)}`, called, farPort: port + 40 + kind };
    }),
  );
  const routes = new Map(plan.map(({ called, farPort }) => [called, farPort]));
  const now = (): Date => new Date();
  const agent = tie === 'straight' ? null : new Agent(port + 90, routes, tie, join(folder, 'logs/bridge/bridge.log'), now);
  await agent?.start();
  await Promise.all(
    names.map(async (course, kind) => {
      const own = plan.filter((one) => one.course === course);
      const { caller, called } = COURSES[course]!;
      const files = { near: join(folder, 'near', `${kind}.xml`), far: join(folder, 'far', `${kind}.xml`), plan: join(folder, 'near', `${kind}.csv`) };
      await writeFile(files.near, scenarioOf('near', caller));
      await writeFile(files.far, scenarioOf('far', called));
      await writeFile(files.plan, `SEQUENTIAL\n${own.map((one) => `${one.caller};${one.called};Desk ${one.caller.slice(-3)}`).join('\n')}\n`);
      const common = ['-i', '127.0.0.1', '-m', String(own.length), '-nostdin', '-trace_msg', '-timeout', '60', '-timer_resol', '1', '-nd'];
      const far = run(join(folder, 'far'), ['-sf', files.far, '-p', String(port + 40 + kind), '-message_file', `${kind}.log`, ...common]);
      await new Promise((resolve) => setTimeout(resolve, 600));
      const to = agent ? port + 90 : port + 40 + kind;
      await run(join(folder, 'near'), ['-sf', files.near, '-inf', files.plan, '-p', String(port + kind), '-message_file', `${kind}.log`, '-r', '1', '-rp', '900', ...common, `127.0.0.1:${to}`]); // prettier-ignore
      await far;
    }),
  );
  await agent?.stop();
  const near = await captured(join(folder, 'near'), 0);
  const far = await captured(join(folder, 'far'), behind);
  await writeFile(join(folder, 'logs/gate-near/messages.log'), near);
  await writeFile(join(folder, 'logs/gate-far/messages.log'), far);
  // captures that were copied: when says nothing of what stands in them
  for (const name of ['gate-near', 'gate-far']) await utimes(join(folder, 'logs', name, 'messages.log'), COPIED, COPIED);
  const courses = new Map(plan.map(({ called, course }) => [called, course]));
  const calls = timesOf(blocksOf(near)).map(({ caller, called, callId, times }) => {
    const other = agent?.pairs.get(callId);
    return { course: courses.get(called)!, caller, called, callIds: other === undefined ? [callId] : [callId, other], times };
  });
  return { logs: join(folder, 'logs'), tie, calls };
}

/** Whatever its end: how the calls went stands in its records. */
async function run(folder: string, options: readonly string[]): Promise<void> {
  const child = spawn(GENERATOR, options, { cwd: folder, stdio: 'ignore' });
  await new Promise((resolve, reject) => child.on('exit', resolve).on('error', reject));
}
/** What the programs of one place wrote, as one capture, by a clock that is so many milliseconds off. */
async function captured(folder: string, off: number): Promise<string> {
  const files = (await readdir(folder)).filter((name) => name.endsWith('.log'));
  const texts = await Promise.all(files.map((name) => readFile(join(folder, name), 'utf8')));
  const blocks = texts.flatMap((text) => text.split(/^(?=-{20,} \d{4}-)/m)).filter((text) => text.trim());
  return blocks
    .map((text) => text.replace(/\d{4}-\d\d-\d\d \d\d:\d\d:\d\d\.\d{3}/, (time) => moved(time, off)))
    .sort((a, b) => (a.slice(0, 80) < b.slice(0, 80) ? -1 : 1))
    .join('');
}
const moved = (time: string, off: number): string => new Date(Date.parse(`${time.replace(' ', 'T')}Z`) + off).toISOString().replace('T', ' ').replace('Z', ''); // prettier-ignore
