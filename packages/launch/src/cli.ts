import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { freePlan, generate } from '@fadenweg/standin';
import type { Change, FollowInfo, Page } from '@fadenweg/api';
import { call, download, filesBelow, sendFiles, sendSourceText, waitForImport } from './client.ts';
import { Stop } from './commands.ts';
import { lastStarted } from './last-started.ts';
import { Patience } from './patience.ts';

const HELP = `bin/fadenweg COMMAND
  import PATH... [--environment E] [--zone Z] [--url U]   bring files or folders into the running server
  follow PATH... [--environment E] [--zone Z] [--stop] [--url U]   read files or folders of the server's machine as they grow, also after its next start; --stop ends it
  export strands [--from T] [--to T] [--flow F] [--outcome O] [--with-records] [--format jsonl|csv|otlp|xes] [--url U]   strands to standard output, as JSON lines or in another open format
  export records [--q SEARCH] [--from T] [--to T] [--format jsonl|csv|otlp] [--url U]   records that a search finds to standard output
  export unusual [--from T] [--to T] [--environment E] [--url U]   what departs from the usual to standard output, as JSON lines, the gravest first
  change "WHAT" [--component C] [--host H] [--environment E] [--at T] [--url U]   register a change that no record tells of
  register-source --component C --version V PATH [--url U]   register the source text of a version, so that traces and messages lead to its lines; a build calls it
  generate --out DIR [--seed N] [--hours N] [--records N] [--fault-rate F]   write the made-up logs and their truth`;

async function main(): Promise<void> {
  const [command, ...rest] = process.argv.slice(2);
  switch (command) {
    case 'import':
      return importPaths(rest);
    case 'follow':
      return followPaths(rest);
    case 'export':
      return exportAll(rest);
    case 'change':
      return registerChange(rest);
    case 'register-source':
      return registerSource(rest);
    case 'generate':
      return generateLogs(rest);
    case undefined:
    case 'help':
    case '--help':
      console.log(HELP);
      return;
    default:
      throw new Stop(`There is no command “${command}”.\n${HELP}`);
  }
}

async function exportAll(args: string[]): Promise<void> {
  const text = { type: 'string' } as const;
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      from: text,
      to: text,
      flow: text,
      outcome: text,
      q: text,
      format: text,
      environment: text,
      zone: text,
      'with-records': { type: 'boolean', default: false },
      url: text,
    },
  });
  const [what] = positionals;
  if (what !== 'strands' && what !== 'records' && what !== 'unusual') throw new Stop('What is to be exported? There are: strands, records, unusual.');
  const url = values.url ?? (await lastStarted());
  if (!url) throw new Stop('No server was started yet: run bin/demo first, or give --url.');
  const query = new URLSearchParams(what === 'strands' ? { records: String(values['with-records']) } : {});
  for (const name of ['from', 'to', 'flow', 'outcome', 'q', 'format', 'environment', 'zone'] as const)
    if (values[name] !== undefined) query.set(name, values[name]);
  await download(`${url.replace(/\/$/, '')}/api/${what}/export?${query}`, process.stdout);
}

async function registerChange(args: string[]): Promise<void> {
  const text = { type: 'string' } as const;
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { component: text, host: text, environment: text, at: text, url: text },
  });
  const [what] = positionals;
  if (what === undefined || positionals.length > 1) throw new Stop('Say what changed, in quotes: bin/fadenweg change "…" --component C');
  const { url = await lastStarted(), ...body } = values;
  if (!url) throw new Stop('No server was started yet: run bin/demo first, or give --url.');
  const change = await call<Change>(`${url.replace(/\/$/, '')}/api/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ what, ...body }),
  });
  console.log(`registered as ${change.id}, at ${change.at}`);
}

/** Folders that hold no source text of the program itself. */
const FOREIGN = /(?:^|[\\/])(?:\.[^\\/]+|node_modules|__pycache__)(?:[\\/]|$)/;
async function registerSource(args: string[]): Promise<void> {
  const text = { type: 'string' } as const;
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: { component: text, version: text, url: text } });
  const [path] = positionals;
  const { component, version, url = await lastStarted() } = values;
  if (!component || !version || path === undefined || positionals.length > 1)
    throw new Stop('Say which component, which version and which folder: bin/fadenweg register-source --component C --version V PATH');
  if (!url) throw new Stop('No server was started yet: run bin/demo first, or give --url.');
  const files = (await filesBelow([path])).filter((file) => !FOREIGN.test(file.path));
  const kept = await sendSourceText(url.replace(/\/$/, ''), files, component, version);
  const left = kept.leftOut > 0 ? `, ${kept.leftOut} left out that are no text or larger than 2 MB` : '';
  console.log(`registered ${kept.files} files of ${component} ${version}${left}`);
}

async function importPaths(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { environment: { type: 'string', default: 'production' }, zone: { type: 'string' }, url: { type: 'string' } },
  });
  if (positionals.length === 0) throw new Stop('Name at least one file or folder: bin/fadenweg import PATH...');
  const url = values.url ?? (await lastStarted());
  if (!url) throw new Stop('No server was started yet: run bin/demo first, or give --url.');
  const files = await filesBelow(positionals);
  if (files.length === 0) throw new Stop('There are no files in it.');
  const zone = values.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const started = await sendFiles(
    url.replace(/\/$/, ''),
    files,
    { environment: values.environment, zone, stated: String(values.zone !== undefined) },
    (path, reason) => console.error(`${path}: ${reason}; it was left out`),
  );
  const patience = new Patience((words) => console.error(words));
  const info = await waitForImport(url.replace(/\/$/, ''), started.id, {
    progress(now) {
      if (process.stderr.isTTY) process.stderr.write(`\r${now.records.toLocaleString('en')} records, ${now.perSecond.toLocaleString('en')}/s   `);
      patience.sees(`${now.state} ${now.records} ${now.readBytes}`, now.waitsFor.map((one) => one.words)); // prettier-ignore
    },
    away: (why) => patience.sees('away', [why]),
  });
  if (process.stderr.isTTY) process.stderr.write('\r');
  for (const { path, error } of info.errors) console.error(`${path || 'import'}: ${error}`);
  console.log(
    `files ${info.files}, already there ${info.alreadyThere}, records read ${info.records}, understood ${info.understood}, kept whole ${info.keptWhole}`,
  );
  if (info.state === 'failed') process.exitCode = 1;
}

async function followPaths(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      environment: { type: 'string', default: 'production' },
      zone: { type: 'string' },
      stop: { type: 'boolean', default: false },
      url: { type: 'string' },
    },
  });
  if (positionals.length === 0) throw new Stop('Name at least one file or folder: bin/fadenweg follow PATH...');
  const found = values.url ?? (await lastStarted());
  if (!found) throw new Stop('No server was started yet: run bin/demo first, or give --url.');
  const follows = `${found.replace(/\/$/, '')}/api/follows`;
  const zone = values.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  for (const path of positionals.map((one) => resolve(one))) {
    if (values.stop) {
      const { items } = await call<Page<FollowInfo>>(follows);
      const own = items.filter((one) => one.path === path);
      if (own.length === 0) throw new Stop(`${path} is not followed.`);
      for (const { id } of own) await call(`${follows}/${id}`, { method: 'DELETE' });
      console.log(`${path} is not followed any more; what was read of it stays`);
      continue;
    }
    const body = JSON.stringify({ path, environment: values.environment, zone, stated: values.zone !== undefined });
    const { id } = await call<FollowInfo>(follows, { method: 'POST', headers: { 'content-type': 'application/json' }, body });
    console.log(`${path} is followed, as ${id}`);
  }
}

async function generateLogs(args: string[]): Promise<void> {
  const { values } = parseArgs({
    args,
    options: {
      out: { type: 'string' },
      seed: { type: 'string', default: '1' },
      hours: { type: 'string', default: '24' },
      records: { type: 'string', default: '100000' },
      'fault-rate': { type: 'string', default: '0.03' },
    },
  });
  if (!values.out) throw new Stop('Say where to: --out DIR');
  const number = (name: string, text: string, least: number, most: number): number => {
    const value = Number(text);
    if (!(value >= least && value <= most)) throw new Stop(`--${name} ${text}: a number from ${least} to ${most} is wanted.`);
    return value;
  };
  const { records, strands } = await generate(
    freePlan(
      values.out,
      number('seed', values.seed, 0, 2 ** 31),
      number('hours', values.hours, 1, 24 * 366),
      number('records', values.records, 100, 1e9),
      number('fault-rate', values['fault-rate'], 0, 1),
    ),
  );
  console.log(`${records} records, ${strands} strands`);
}

main().catch((error: Error) => {
  console.error(error instanceof Stop || (error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS') ? error.message : error);
  process.exit(1);
});
