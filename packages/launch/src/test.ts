import { existsSync } from 'node:fs';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Stop, show } from './commands.ts';
import { install, serverPrograms } from './packages.ts';
import { ROOT } from './places.ts';

/** Lint, types, then Jest for units, server and browser; everything is counted, a check as one. */
interface Count {
  passed: number;
  failed: number;
}
/** Checks that go side by side, each list one after the other. */
const CHECKS = [
  ['lint', 'format', 'contract'],
  ['types', 'web-types'],
];
/** Files of tests that run side by side. */
const TOGETHER = '--maxWorkers=2';
const bin = (name: string): string => join(ROOT, 'node_modules', '.bin', name);

async function check(name: string, program: string, args: string[]): Promise<Count> {
  console.log(`\n== ${name}`);
  const code = await show(program, args, { cwd: ROOT });
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function jest(project: string, extra: string[]): Promise<Count> {
  console.log(`\n== ${project} tests`);
  const report = join(ROOT, 'coverage', `${project}.json`);
  await rm(report, { force: true });
  const code = await show(
    process.execPath,
    [
      '--experimental-vm-modules',
      '--no-warnings=ExperimentalWarning',
      join(ROOT, 'node_modules/jest/bin/jest.js'),
      '--selectProjects',
      project,
      '--json',
      `--outputFile=${report}`,
      ...extra,
    ],
    { cwd: ROOT },
  );
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(await readFile(report, 'utf8')) as {
    numPassedTests: number;
    numFailedTests: number;
    numRuntimeErrorTestSuites: number;
  };
  const failed = numFailedTests + numRuntimeErrorTestSuites;
  return { passed: numPassedTests, failed: code !== 0 && failed === 0 ? 1 : failed };
}

async function main(): Promise<void> {
  const only = process.argv.slice(2);
  if (!serverPrograms()) await install(['postgresql'], 'The database server (PostgreSQL)');
  if (!existsSync('/usr/bin/chromium') || !existsSync('/usr/bin/chromedriver'))
    await install(['chromium', 'chromium-driver'], 'The browser for tests (Chromium)');
  await mkdir(join(ROOT, 'coverage'), { recursive: true });
  const steps: Record<string, () => Promise<Count>> = {
    lint: () => check('lint', bin('eslint'), ['.', '--max-warnings', '0']),
    format: () => check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']),
    // what is made from the endpoints is current
    contract: () => check('contract', bin('tsx'), ['--conditions=source', 'tools/contract/main.ts', '--check']),
    types: () => check('types', bin('tsc'), ['-p', 'tsconfig.check.json']),
    'web-types': () => check('types of the page', bin('vue-tsc'), ['-p', 'packages/web/tsconfig.json', '--noEmit']),
    unit: () => jest('unit', [TOGETHER]),
    page: () => jest('page', [TOGETHER]),
    // each file of these has a database server and an application of its own, and waits more than it works
    server: () => jest('server', [TOGETHER]),
    browser: () => jest('browser', [TOGETHER]),
  };
  const unknown = only.find((name) => !(name in steps));
  if (unknown) throw new Stop(`There is no part “${unknown}”; there are ${Object.keys(steps).join(', ')}.`);
  const total: Count = { passed: 0, failed: 0 };
  const run = async (names: readonly string[]): Promise<void> => {
    for (const name of names) {
      if (only.length > 0 && !only.includes(name)) continue;
      const count = await steps[name]!();
      total.passed += count.passed;
      total.failed += count.failed;
    }
  };
  // what only reads goes side by side
  await Promise.all(CHECKS.map(run));
  await run(Object.keys(steps).filter((name) => !CHECKS.flat().includes(name)));
  if (total.passed + total.failed === 0) total.failed = 1;
  console.log(`${total.passed} passed, ${total.failed} failed`);
  process.exitCode = total.failed > 0 ? 1 : 0;
}

main().catch((error: Error) => {
  console.error(error instanceof Stop ? error.message : error);
  console.log('0 passed, 1 failed');
  process.exit(1);
});
