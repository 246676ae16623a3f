import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { SourceFile } from '@fadenweg/core/understanding';
import type { Place, TrueTransaction } from '@fadenweg/standin';
import { dice } from '../../packages/launch/src/testing/dice.ts';
import { Driver, type Fault, type Happened } from '../real/driver.ts';
import { LAYOUTS } from '../real/log-writer.ts';
import { Machine, type Drawn } from '../real/machine.ts';
import { spelled } from '../real/settings.ts';
import { DATABASE_LOG, linesByRequest, type Lines } from '../real/truth.ts';
import type { InPlaces } from './told.ts';
import { declaring, filesBelow, type JudgedWorld } from './world.ts';

const DOOR_FORMATS = [
  '$remote_addr - $remote_user [$time_local] "$request" $status $body_bytes_sent "$http_referer" "$http_user_agent" $request_id $request_time',
  '{"time":"$time_iso8601","client":"$remote_addr","method":"$request_method","uri":"$request_uri","status":$status,"bytes":$body_bytes_sent,"took":$request_time,"upstream_took":"$upstream_response_time","request_id":"$request_id"}',
  '$time_iso8601 $remote_addr "$request" $status rt=$request_time urt=$upstream_response_time rid=$request_id',
];
const PREFIXES = ['%m [%p] ', '%t [%p] %u@%d ', '%m [%p] %q%u@%d: ', '%n [%p:%l] '];
const SPELLINGS = ['LN-######', 'L########', 'loan/#######', '2026-######-L'];
const REQUEST_NAMES = ['request_id', 'rid', 'req', 'correlation'];
const BROKER_TIMES = ['%Y-%m-%dT%H:%M:%S', '%d/%m/%Y %H:%M:%S'];
const SYSLOG_TIMES = ['RSYSLOG_TraditionalFileFormat', 'RSYSLOG_FileFormat', 'RSYSLOG_SyslogProtocol23Format'] as const;

function draw(random: () => number): Drawn {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  return {
    layouts: { desk: pick(LAYOUTS), shelf: pick(LAYOUTS), post: pick(LAYOUTS) },
    spelling: pick(SPELLINGS),
    requestName: pick(REQUEST_NAMES),
    doorFormat: pick(DOOR_FORMATS),
    databasePrefix: pick(PREFIXES),
    databaseStatements: pick(['none', 'mod'] as const),
    brokerTime: pick(BROKER_TIMES),
    syslogTime: pick(SYSLOG_TIMES),
  };
}

/** What a fault comes to: outcomes that are right, what its cause says, who should have spoken next, and who was slow. */
const COMES_TO: Record<Fault, { outcomes: string[]; cause: RegExp; next?: string; slow?: true }> = {
  blocked: { outcomes: ['refused'], cause: /is blocked/ },
  lent: { outcomes: ['refused'], cause: /is not free/ },
  'sent-twice': { outcomes: ['failed', 'refused', 'doubled'], cause: /duplicate key|Key \(ticket\)|POST \/loans failed/ },
  'too-large': { outcomes: ['stalled'], cause: /handed to the post/, next: 'post' },
  'post-killed': { outcomes: ['stalled'], cause: /handed to the post/, next: 'post' },
  'disk-full': { outcomes: ['failed'], cause: /could not be sent/ },
  'wrong-version': { outcomes: ['failed'], cause: /could not be sent/ },
  locked: { outcomes: ['slow'], cause: /still waiting|acquired|duration: |Process holding|reserved|reserving/, slow: true },
  'slow-reader': { outcomes: ['slow'], cause: /label/, slow: true },
};

/** What a lending office wrote, and what really happened in it. */
export interface Ran {
  seed: number;
  drawn: Drawn;
  files: SourceFile[];
  happened: Happened[];
  lines: Lines;
}

/**
 * A lending office that really runs: a web server, a database, a broker and a syslog daemon from Debian's packages, three small services, faults that are
 * really made.
 */
export async function runReal(seed: number, loans: number): Promise<Ran> {
  const random = dice(seed);
  const drawn = draw(random);
  const folder = await mkdtemp(join(tmpdir(), 'fadenweg-real-'));
  try {
    const machine = await Machine.start(folder, drawn);
    const driver = new Driver(machine, random);
    await driver.run(loans, FAULT_EACH).finally(() => machine.stop());
    const lines = await linesByRequest(machine);
    await mkdir(join(machine.logs, 'database'), { recursive: true });
    await writeFile(join(machine.logs, DATABASE_LOG), (await machine.databaseLogs()).shown);
    return { seed, drawn, files: await filesBelow(machine.logs), happened: driver.happened, lines };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
/** One loan in so many meets a fault. */
const FAULT_EACH = 7;

/** The same as a world to judge by: with the number of a loan and that of a request declared. */
export function real({ seed, drawn, files, happened, lines }: Ran): JudgedWorld {
  const aside = new Map(happened.map((one) => [one.loan, nameless(happened, one.loan, lines, drawn.spelling)]));
  const pattern = drawn.spelling.replace(/#+/, (digits) => `\\d{${digits.length}}`);
  return {
    name: `real ${seed} (${Object.values(drawn.layouts).join(', ')})`,
    files,
    declared: declaring([
      { name: 'loan', label: 'loan', role: 'business', patterns: [pattern], fields: [] },
      {
        name: 'door-request',
        label: 'request at the door',
        role: 'link',
        patterns: ['[0-9a-f]{32}'],
        fields: [drawn.requestName, 'request_id', 'rid'],
      },
    ]),
    truth: (told) => happened.map((one) => trueOf(one, aside.get(one.loan)!, lines, told, drawn.spelling)),
    neutral: aside,
  };
}

/** What the database says of a statement in which nothing stands by which whoever reads the logs could tell whose it is. */
function nameless(happened: readonly Happened[], loan: string, lines: Lines, spelling: string): Set<Place> {
  const own = happened.filter((one) => one.loan === loan);
  const names = own.flatMap(({ id, request }) => [...(id === null ? [] : [spelled(spelling, id)]), ...(request === null ? [] : [request])]);
  return new Set(own.flatMap(({ tx }) => (lines.get(tx) ?? []).flatMap(({ place, text }) => (place.startsWith(DATABASE_LOG) && !names.some((name) => text.includes(name)) ? [place] : [])))); // prettier-ignore
}

function trueOf(happened: Happened, aside: ReadonlySet<Place>, lines: Lines, told: InPlaces, spelling: string): TrueTransaction {
  const { tx, kind, loan, id, request, fault } = happened;
  const own = lines.get(tx) ?? [];
  const to = fault && COMES_TO[fault];
  const records: Place[] = to ? own.filter(({ text }) => to.cause.test(text)).map(({ place }) => place) : [];
  const components = [...new Set(records.map((place) => told.recordAt(place)?.component ?? ''))].filter((name) => name !== '').slice(0, 2);
  return {
    id: tx,
    kind,
    strand: loan,
    legs: [own.map(({ place }) => place).filter((place) => !aside.has(place))],
    byLeg: true,
    identifiers: [...(id === null ? [] : [spelled(spelling, id)]), ...(request === null ? [] : [request])],
    outcomes: to?.outcomes ?? ['done'],
    good: fault === null,
    fault,
    cause: components.length > 0 ? { components, records } : null,
    next: to?.next ? [to.next] : null,
    slowIn: to?.slow ? (components[0] ?? null) : null,
  };
}
