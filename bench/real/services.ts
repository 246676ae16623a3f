import { mkdirSync, writeFileSync } from 'node:fs';
import { createServer, request, type IncomingMessage, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import mqtt from 'mqtt';
import pg from 'pg';
import { LogWriter, type Level } from './log-writer.ts';
import { spelled, type Settings } from './settings.ts';

/**
 * Three small services of a lending office that really run, one in each process: the desk takes loans, the shelf reserves items, the post sends them.
 * What they are told of the truth (`x-tx`) they pass on and never write into their logs.
 */
const settings = JSON.parse(process.env.SETTINGS!) as Settings;
const { role, ports, requestName, spelling } = settings;
const log = new LogWriter(
  role,
  settings.layout,
  join(settings.logs, role, `${role}.log`),
  join(settings.truth, `${role}.jsonl`),
  ports.syslog,
  settings.lines,
);
const pool = new pg.Pool({ connectionString: settings.database, max: 6 });
pool.on('error', () => {}); // told by the next query

interface Call {
  tx: string;
  id: string;
  body: Record<string, string>;
}
class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}
const say = (
  { tx, id }: Pick<Call, 'tx' | 'id'>,
  level: Level,
  logger: string,
  text: string,
  fields: Record<string, string | number> = {},
  error?: Error,
): void => log.say(tx, { logger, level, text, fields: id ? { [requestName]: id, ...fields } : fields, ...(error ? { error } : {}) });

/** A connection that tells the database whose it is: that stands in its second log, by which the truth is told. */
async function within<T>(tx: string, run: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  try {
    await client.query(`set application_name = '${tx}'`);
    return await run(client);
  } catch (error) {
    await client.query('rollback').catch(() => {}); // the connection may be gone; the first error is the one to tell
    throw error;
  } finally {
    await client.query(`set application_name = '-'`).catch(() => {}); // the same
    client.release();
  }
}

function asked(method: string, port: number, path: string, { tx, id, body }: Call): Promise<{ status: number; body: Record<string, string> }> {
  return new Promise((resolve, reject) => {
    const sent = request(
      { host: '127.0.0.1', port, path, method, headers: { 'x-tx': tx, 'x-request-id': id, 'content-type': 'application/json' } },
      (response) => {
        let text = '';
        response.on('data', (chunk: Buffer) => (text += chunk.toString()));
        response.on('end', () => resolve({ status: response.statusCode!, body: JSON.parse(text || '{}') as Record<string, string> }));
      },
    );
    sent.on('error', reject);
    sent.end(JSON.stringify(body));
  });
}

type Route = (call: Call, parts: string[], response: ServerResponse) => Promise<object | null>;
function serve(port: number, routes: Record<string, Route>): void {
  createServer((incoming: IncomingMessage, response) => {
    let text = '';
    incoming.on('data', (chunk: Buffer) => (text += chunk.toString()));
    incoming.on('end', () => {
      const parts = incoming.url!.split('/').slice(1);
      const call: Call = {
        tx: String(incoming.headers['x-tx']),
        id: String(incoming.headers['x-request-id']),
        body: JSON.parse(text || '{}') as Record<string, string>,
      };
      const route = routes[`${incoming.method} ${parts[0]}${parts.length > 2 ? `/${parts[2]}` : ''}`]!;
      route(call, parts, response).then(
        (answer) => answer && end(response, 200, answer),
        (error: Error) => {
          if (error instanceof Refused) return end(response, error.status, { problem: error.message });
          say(call, 'error', `${role}.http`, `${incoming.method} ${incoming.url} failed`, {}, error);
          end(response, 500, { problem: 'internal error' });
        },
      );
    });
  }).listen(port, '127.0.0.1');
}
const end = (response: ServerResponse, status: number, body: object): void =>
  void response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
/** Whoever started it waits for that. */
const started = (): void => console.log('started');
const broker = (): mqtt.MqttClient => mqtt.connect(`mqtt://127.0.0.1:${ports.broker}`, { clientId: role });

function desk(): void {
  const client = broker();
  serve(ports.desk, {
    'POST loans': async (call) => {
      const { reader, item } = call.body as { reader: string; item: string };
      say(call, 'info', 'desk.loans', `loan of ${item} asked for by reader ${reader}`);
      if (reader.startsWith('B')) {
        say(call, 'warn', 'desk.readers', `reader ${reader} is blocked since fees are open`);
        throw new Refused(403, 'reader is blocked');
      }
      const reserved = await asked('POST', ports.shelf, `/items/${item}/reserve`, call);
      if (reserved.status === 409) {
        say(call, 'info', 'desk.loans', `no loan of ${item}: shelf answered 409`);
        throw new Refused(409, 'item is lent');
      }
      if (reserved.status !== 200) throw new Error(`shelf answered ${reserved.status} for ${item}`);
      const id = await within(call.tx, async (db) => {
        const { rows } = await db.query<{ id: number }>('insert into loan (reader, item, ticket) values ($1, $2, $3) returning id', [
          reader,
          item,
          call.body.ticket,
        ]);
        return rows[0]!.id;
      });
      const number = spelled(spelling, id);
      say(call, 'info', 'desk.loans', `loan ${number} is made`, { item });
      const padding = call.body.large ? 'x'.repeat(40_000) : '';
      client.publish('loans', JSON.stringify({ id, number, tx: call.tx, padding }), { qos: 0 });
      say(call, 'info', 'desk.queue', `${number} handed to the post`);
      return { number, id };
    },
    'POST loans/sent': async (call, [, id]) => {
      const number = spelled(spelling, Number(id));
      await within(call.tx, (db) => db.query(`update loan set state = 'sent' where id = $1`, [id]));
      say(call, 'info', 'desk.loans', `loan ${number} is on its way`);
      return {};
    },
    'GET loans': async (call, [, id]) => {
      const number = spelled(spelling, Number(id));
      const { rows } = await within(call.tx, (db) => db.query<{ state: string }>('select state from loan where id = $1', [id]));
      say(call, 'info', 'desk.loans', `state of ${number} asked for: ${rows[0]?.state}`);
      return { state: rows[0]?.state };
    },
    'GET loans/label': async (call, [, id], response) => {
      const number = spelled(spelling, Number(id));
      say(call, 'info', 'desk.labels', `label of ${number} asked for`);
      response.writeHead(200, { 'content-type': 'application/octet-stream' });
      response.end(Buffer.alloc(24_000_000, 'label '));
      return null;
    },
  });
}

function shelf(): void {
  serve(ports.shelf, {
    'POST items/reserve': async (call, [, item]) =>
      within(call.tx, async (db) => {
        say(call, 'debug', 'shelf.items', `reserving ${item}`);
        await db.query('begin');
        const { rows } = await db.query<{ free: number }>('select free from item where name = $1 for update', [item]);
        if (!rows[0] || rows[0].free < 1) {
          say(call, 'warn', 'shelf.items', `${item} is not free`);
          throw new Refused(409, 'not free');
        }
        await db.query('update item set free = free - 1 where name = $1', [item]);
        await db.query('commit');
        say(call, 'info', 'shelf.items', `${item} reserved, ${rows[0].free - 1} left`);
        return {};
      }),
  });
}

function post(): void {
  const client = broker();
  mkdirSync(settings.labels, { recursive: true });
  client.on('connect', () => client.subscribe('loans', started));
  client.on('message', (_topic, body) => {
    const { id, number, tx, ...more } = JSON.parse(body.toString()) as { id: number; number: string; tx: string; padding: string };
    const call: Call = { tx, id: '', body: {} };
    void (async () => {
      say(call, 'info', 'post.parcels', `parcel for ${number} begun`);
      // a version that expects what nobody sends
      if (settings.version !== '2.4.0')
        say(call, 'info', 'post.parcels', `sender of ${number} is ${(more as unknown as { sender: { name: string } }).sender.name}`);
      await within(tx, (db) => db.query('insert into parcel (loan, weight) values ($1, $2)', [id, 100 + (id % 900)]));
      writeFileSync(join(settings.labels, 'label'), `label of ${number}\n`, { flag: 'a' });
      say(call, 'info', 'post.labels', `label of ${number} printed`);
      await asked('POST', ports.desk, `/loans/${id}/sent`, call);
      say(call, 'info', 'post.parcels', `parcel for ${number} handed over`);
    })().catch((error: Error) => say(call, 'error', 'post.parcels', `parcel for ${number} could not be sent`, {}, error));
  });
}

log.say(null, { logger: `${role}.main`, level: 'info', text: `${role} ${settings.version} started` });
({ desk, shelf, post })[role]();
if (role !== 'post') started();
