import { open } from 'node:fs/promises';
import { parentPort } from 'node:worker_threads';
import { decode, frame, LONGEST_RECORD, type Place } from '@fadenweg/core';
import { ownClient } from '../database/connect.ts';
import type { Batch, FromReader, ReadingJob, ToReader } from './batch.ts';
import { BatchBuilder } from './batch-builder.ts';
import { CopyRows } from './copy-rows.ts';

/** Bytes that are read at once, and about what a batch holds. */
const STRIDE = 1 << 21;
const BLOCK = 256 * 1024;
const SAMPLE = 1 << 16;
/** Batches that may be under way at one time; the store asks for more as it commits. */
const AHEAD = 3;

let credits = 0;
let stopped = false;
let wake: (() => void) | null = null;
const port = parentPort!;
const send = (message: FromReader, transfer: ArrayBuffer[] = []): void => port.postMessage(message, transfer);

port.on('message', (message: ToReader) => {
  if (message.type === 'read') {
    credits = AHEAD;
    stopped = false;
    void read(message).catch((error: Error) => send({ type: 'failed', sourceId: message.job.sourceId, error: error.message }));
  } else {
    if (message.type === 'more') credits++;
    else stopped = true;
    wake?.();
  }
});

/** Bytes of a source from a position on: from its file, or from the blocks that were kept of it. */
interface Bytes {
  at(position: number, length: number): Promise<Buffer>;
  close(): Promise<void>;
}

async function fileBytes(file: string): Promise<Bytes> {
  const handle = await open(file);
  return {
    async at(position, length) {
      const buffer = Buffer.allocUnsafe(length);
      const { bytesRead } = await handle.read(buffer, 0, length, position);
      return buffer.subarray(0, bytesRead);
    },
    close: () => handle.close(),
  };
}

async function keptBytes(url: string, sourceId: number): Promise<Bytes> {
  const client = await ownClient(url);
  return {
    async at(position, length) {
      const { rows } = await client.query<{ byte_from: number; bytes: Buffer }>(
        'select byte_from, bytes from raw_block where source_id = $1 and byte_to > $2 and byte_from < $3 order by byte_from',
        [sourceId, position, position + length],
      );
      if (rows.length === 0) return Buffer.alloc(0);
      return Buffer.concat(rows.map((row) => row.bytes)).subarray(position - rows[0]!.byte_from);
    },
    close: () => client.end(),
  };
}

async function read({ job, declarations, databaseUrl }: Extract<ToReader, { type: 'read' }>): Promise<void> {
  const source = job.file === null ? await keptBytes(databaseUrl, job.sourceId) : await fileBytes(job.file);
  try {
    const start = await source.at(0, SAMPLE);
    const builder = new BatchBuilder(job, declarations, decode(start.subarray(0, SAMPLE), job.encoding), job.size <= SAMPLE);
    await readAll(job, source, builder);
  } finally {
    await source.close();
  }
}

async function readAll(job: ReadingJob, source: Bytes, builder: BatchBuilder): Promise<void> {
  let place: Place = job.from;
  let rest: Buffer = Buffer.alloc(0);
  for (;;) {
    const room = STRIDE;
    const more = await source.at(place.byte + rest.length, room);
    const bytes = rest.length === 0 ? more : Buffer.concat([rest, more]);
    const last = more.length === 0 || place.byte + bytes.length >= job.size;
    const { frames, next } = frame(bytes, place, job.encoding, builder.reader, last);
    const consumed = next.byte - place.byte;
    if (consumed === 0 && !last) {
      if (bytes.length > 3 * LONGEST_RECORD) throw new Error('a record could not be framed');
      rest = bytes;
      continue;
    }
    for (const one of frames) builder.add(one);
    const raw = job.file === null ? null : rawRows(job.sourceId, bytes.subarray(0, consumed), place, frames);
    if (!(await credit())) {
      send({ type: 'stopped', sourceId: job.sourceId });
      return;
    }
    const batch = builder.take(next, raw, last);
    send({ type: 'batch', batch }, buffersOf(batch));
    if (last) return;
    place = next;
    rest = Buffer.from(bytes.subarray(consumed));
  }
}

async function credit(): Promise<boolean> {
  while (credits === 0 && !stopped) await new Promise<void>((resolve) => (wake = resolve));
  wake = null;
  credits--;
  return !stopped;
}

const buffersOf = (batch: Batch): ArrayBuffer[] =>
  [batch.seen, batch.tied, batch.records, batch.counts, batch.sightings, batch.edges, ...(batch.raw ? [batch.raw] : [])].map(
    (part) => part.buffer as ArrayBuffer,
  );

/** The original bytes in blocks that end where records do. */
function rawRows(sourceId: number, bytes: Buffer, place: Place, frames: { byteTo: number; byteFrom: number; line: number }[]): Uint8Array {
  const rows = new CopyRows(bytes.length + 4096);
  let from = place.byte;
  let line = place.line;
  const put = (to: number): void => {
    if (to <= from) return;
    rows.begin(5);
    rows.int(sourceId);
    rows.big(from);
    rows.big(to);
    rows.int(line);
    rows.bytes(bytes.subarray(from - place.byte, to - place.byte));
    from = to;
  };
  for (const one of frames) {
    if (one.byteFrom - from >= BLOCK) {
      put(one.byteFrom);
      line = one.line;
    }
  }
  put(place.byte + bytes.length);
  return rows.finish();
}
