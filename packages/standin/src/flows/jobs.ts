import { BATCH, batchLine } from '../components/batch.ts';
import { wireMessage } from '../components/dispatch.ts';
import { FRAME_GATE, FRAME_PARTNER } from '../components/frame-gate.ts';
import { LABDB, labdbLine, newSession } from '../components/labdb.ts';
import { asked, type JobFault } from '../stories/story.ts';
import { localText, MINUTE, MS, SECOND, type Micros } from '../writing/times.ts';
import type { World } from '../world.ts';

function begin(world: World, prefix: string, flow: string, due: Micros) {
  const fault: JobFault | null = asked(world.stories, (story) => story.job?.(prefix, due))?.answer ?? null;
  if (fault?.absent) return null;
  const start = due + (fault?.late ?? 0);
  const odd = fault?.rows !== undefined || fault?.priceless !== undefined;
  const run = fault?.run ?? world.numbers.nextRun(prefix);
  const open = world.sink.open({
    flow,
    businessId: run,
    startedAt: start,
    story: fault?.story ?? null,
    outcome: odd ? 'odd' : fault?.holds ? 'slow' : 'done',
    identifiers: [{ kind: 'run', value: run }],
    attributes: {},
    cause: odd || fault?.holds ? { failedIn: 'batch', component: 'batch', record: null, accepted: [] } : null,
  });
  return { fault, run, open, start };
}

/** Reads the supplier's price list and writes it to the database, hourly. */
export function priceListJob(world: World, due: Micros): void {
  const { random, sink } = world;
  const begun = begin(world, 'PL', 'price-list-job', due);
  if (!begun) return;
  const { fault, run, open, start } = begun;
  const rows = fault?.rows ?? random.whole(4190, 4260);
  let at = start;
  const say = (level: string, message: string, cause = false): void =>
    sink.emit(BATCH, at, batchLine(at, run, level, 'PriceListJob', message), open, cause);
  say('INFO', 'started, file prices.csv');
  at += random.around(fault?.rows !== undefined ? 300 * MS : 9 * SECOND);
  say('INFO', `read ${rows} rows`, fault?.rows !== undefined);
  at += random.around(800 * MS);
  const rejected = random.whole(0, 4);
  if (rejected > 0) say('WARN', `rejected ${rejected} rows without a price group`);
  at += random.around(fault?.rows !== undefined ? 200 * MS : 4 * SECOND);
  say('INFO', `wrote ${rows - rejected} prices to table price`);
  at += random.around(50 * MS);
  say('INFO', `finished in ${((at - start) / 1e6).toFixed(1)} s`);
  sink.close(open);
}

/** Brings the stock of blanks in line with the warehouse, each half hour; holds row locks while it writes. */
export function stockSyncJob(world: World, due: Micros): void {
  const { random, sink } = world;
  const begun = begin(world, 'SS', 'stock-sync-job', due);
  if (!begun) return;
  const { fault, run, open, start } = begun;
  const pid = fault?.holds ? 4711 : random.whole(4000, 4700);
  const session = newSession(pid, Math.floor(start), 'labbatch', 'batch');
  open.truth.identifiers.push({ kind: 'db-session', value: session.id });
  let at = start;
  const say = (level: string, message: string, cause = false): void =>
    sink.emit(BATCH, at, batchLine(at, run, level, 'StockSyncJob', message), open, cause);
  say('INFO', `started, database session=${session.id}`);
  const rows = random.whole(1180, 1260);
  at += random.around(2 * SECOND);
  say('INFO', `read ${rows} rows from the warehouse`);
  at += random.around(900 * MS);
  const took = random.around(700 * MS);
  at += took;
  sink.emit(
    LABDB,
    at,
    labdbLine(at, session, {
      severity: 'LOG',
      command: 'UPDATE',
      xid: 88_213,
      message: `duration: ${(took / 1000).toFixed(3)} ms  statement: update stock_blank s set free = w.free from warehouse w where w.blank = s.blank`,
    }),
    open,
    false,
    at - took,
  );
  at += random.around(15 * MS);
  say('INFO', `updated ${rows} rows of stock_blank, transaction open`);
  if (fault?.holds) {
    at = start + 2 * MINUTE;
    say('INFO', 'waiting for the supplier file');
    at = start + fault.holds;
  } else at += random.around(400 * MS);
  say('INFO', `committed, session=${session.id}`, fault?.holds !== undefined);
  at += random.around(30 * MS);
  say('INFO', `finished in ${((at - start) / 1e6).toFixed(1)} s`);
  sink.close(open);
}

/** Writes invoices for what was handed to the carrier, each half hour; what has no price waits for the next run. */
export function invoiceExportJob(world: World, due: Micros): void {
  const { sink } = world;
  const begun = begin(world, 'IE', 'invoice-export-job', due);
  if (!begun) return;
  const { fault, run, open, start } = begun;
  const random = world.random.fork(`run ${run}`);
  const orders = random.whole(52, 71);
  let at = start;
  const say = (level: string, message: string, cause = false): void => sink.emit(BATCH, at, batchLine(at, run, level, 'InvoiceExportJob', message), open, cause); // prettier-ignore
  say('INFO', 'started, target invoices.csv');
  at += random.around(700 * MS);
  say('INFO', `read ${orders} orders, prices from table price`);
  at += random.around(SECOND);
  const priceless = fault?.priceless ?? (random.chance(0.3) ? 1 : 0);
  if (priceless > 0) say('WARN', `rejected ${priceless} orders without a price`, fault?.priceless !== undefined);
  at += random.around(600 * MS);
  say('INFO', `wrote ${orders - priceless} invoices`);
  at += random.around(40 * MS);
  say('INFO', `finished in ${((at - start) / 1e6).toFixed(1)} s`);
  sink.close(open);
}

/** The supplier makes one for each half of a day. */
const frameFile = (at: Micros): string =>
  `frames_${localText(at, 'T').slice(0, 10).replaceAll('-', '')}_${Number(localText(at, 'T').slice(11, 13)) < 12 ? 1 : 2}.xml`;

/** Fetches the catalogue of frames from their supplier, page by page, twice a day. */
export function frameCatalogueJob(world: World, due: Micros): void {
  const { sink } = world;
  const begun = begin(world, 'FC', 'frame-catalogue-job', due);
  if (!begun) return;
  const { fault, run, open, start } = begun;
  const random = world.random.fork(`run ${run}`);
  let at = start;
  const say = (message: string): void => sink.emit(BATCH, at, batchLine(at, run, 'INFO', 'FrameCatalogueJob', message), open);
  const wire = (way: 'sent' | 'received', first: string, body: string[]): void =>
    sink.emit(FRAME_GATE, at, wireMessage(at, way, FRAME_PARTNER, first, way === 'sent' ? [`Host: ${FRAME_PARTNER}`] : [], body), open);
  say(`started, supplier frames, file ${frameFile(start - (fault?.older ?? 0))}`);
  let frames = 0;
  for (let page = 1; page <= 6; page++) {
    at += random.around(30 * MS);
    wire('sent', `GET /catalogue?page=${page} HTTP/1.1`, ['<CatalogueRequest>', `  <Run>${run}</Run>`, '</CatalogueRequest>']);
    at += random.around(420 * MS);
    const count = random.whole(840, 880);
    frames += count;
    wire('received', 'HTTP/1.1 200 OK', ['<Catalogue>', `  <Run>${run}</Run>`, `  <Frames count="${count}"/>`, '</Catalogue>']);
  }
  at += random.around(200 * MS);
  say(`read ${frames} frames`);
  at += random.around(2 * SECOND);
  say(`wrote ${frames} frames`);
  at += random.around(30 * MS);
  say(`finished in ${((at - start) / 1e6).toFixed(1)} s`);
  sink.close(open);
}
