import { open } from 'node:fs/promises';
import { parentPort } from 'node:worker_threads';
import { decode, frame, LONGEST_RECORD, SLICE, withSlices, type Frame, type Place } from '@fadenweg/core/reading';
import { ownClient } from '../../database/own-client.ts';
import type { Batch } from '../../evidence/batch.ts';
import type { FromReader, NameLists, ReadingJob, ToReader } from './messages.ts';
import { BatchBuilder } from './batch-builder.ts';
import { CopyRows } from '../../database/copy-rows.ts';

/** Bytes that are read and decoded at once; what is made of them dies before the next, which spares collecting. */
const STRIDE = 1 << 18;
/** Bytes that a batch holds, about. */
const BATCH = 1 << 21;
const BLOCK = 256 * 1024;
const SAMPLE = 1 << 16;
/** Batches that may be under way at one time; the store asks for more as it commits. */
const AHEAD = 3;

let credits = 0;
let stopped = false;
let wake: (() => void) | null = null;
let named: ((ids: NameLists<[string, number][]>) => void) | null = null;
const port = parentPort!;
const send = (message: FromReader, transfer: ArrayBuffer[] = []): void => port.postMessage(message, transfer);

port.on('message', (message: ToReader) => {
  if (message.type === 'read') {
    credits = AHEAD;
    stopped = false;
    void read(message).catch((error: Error) => send({ type: 'failed', sourceId: message.job.sourceId, error: error.message }));
  } else if (message.type === 'named') named?.(message.ids);
  else {
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

async function fileBytes(file: string, from: number): Promise<Bytes> {
  const handle = await open(file);
  return {
    async at(position, length) {
      const buffer = Buffer.allocUnsafe(length);
      const { bytesRead } = await handle.read(buffer, 0, length, position - from);
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
  const source = job.file === null ? await keptBytes(databaseUrl, job.sourceId) : await fileBytes(job.file, job.fileFrom);
  try {
    const builder = new BatchBuilder(job, declarations, await sampleOf(job, source, databaseUrl), job.size <= SAMPLE);
    await readAll(job, source, builder);
  } finally {
    await source.close();
  }
}

/** The source's beginning, or other places where these tell more: of a file that has grown it is kept already. */
async function sampleOf(job: ReadingJob, source: Bytes, databaseUrl: string): Promise<string> {
  if (job.fileFrom === 0) return sampled(job, source, SAMPLE);
  const kept = await keptBytes(databaseUrl, job.sourceId);
  try {
    return await sampled(job, kept, Math.min(SAMPLE, job.fileFrom));
  } finally {
    await kept.close();
  }
}
async function sampled({ encoding, hints: { sampleAt } }: ReadingJob, bytes: Bytes, most: number): Promise<string> {
  const text = async (from: number, length: number): Promise<string> => decode((await bytes.at(from, length)).subarray(0, length), encoding);
  if (!sampleAt) return text(0, most);
  const slices: string[] = [];
  for (const place of sampleAt) slices.push(await text(place, SLICE));
  return withSlices(slices);
}

async function readAll(job: ReadingJob, source: Bytes, builder: BatchBuilder): Promise<void> {
  let place: Place = job.from;
  let rest: Buffer = Buffer.alloc(0);
  let kept = new KeptBytes(job, place);
  const take = (one: Frame): void => {
    kept.frame(one);
    builder.add(one);
  };
  for (;;) {
    const more = await source.at(place.byte + rest.length, STRIDE);
    const bytes = rest.length === 0 ? more : Buffer.concat([rest, more]);
    const last = more.length === 0 || place.byte + bytes.length >= job.size;
    const next = frame(bytes, place, job.encoding, builder.reader, last && !job.growing, take);
    const consumed = next.byte - place.byte;
    if (consumed === 0 && !last) {
      if (bytes.length > 3 * LONGEST_RECORD) throw new Error('a record could not be framed');
      rest = bytes;
      continue;
    }
    kept.add(bytes.subarray(0, consumed));
    place = next;
    rest = bytes.subarray(consumed);
    if (!last && place.byte - kept.from < BATCH) continue;
    if (!(await credit())) {
      send({ type: 'stopped', sourceId: job.sourceId });
      return;
    }
    const names = builder.unknownNames();
    if (names) {
      const answer = new Promise<NameLists<[string, number][]>>((resolve) => (named = resolve));
      send({ type: 'names', names });
      builder.know(await answer);
    }
    const batch = builder.take(next, kept.rows(), last);
    send({ type: 'batch', batch }, buffersOf(batch));
    if (last) return;
    kept = new KeptBytes(job, place);
  }
}

async function credit(): Promise<boolean> {
  while (credits === 0 && !stopped) await new Promise<void>((resolve) => (wake = resolve));
  wake = null;
  credits--;
  return !stopped;
}

const buffersOf = (batch: Batch): ArrayBuffer[] =>
  [
    batch.seen,
    batch.tied,
    batch.glimpses.rows,
    batch.glimpses.places,
    batch.records,
    batch.counts,
    batch.sightings,
    batch.edges,
    ...(batch.raw ? [batch.raw] : []),
  ].map((part) => part.buffer as ArrayBuffer);

/** The original bytes of one batch, in blocks that end where records do; nothing where they are kept already. */
class KeptBytes {
  readonly from: number;
  private readonly parts: Uint8Array[] = [];
  private readonly cuts: { byte: number; line: number }[];

  constructor(
    private readonly job: ReadingJob,
    place: Place,
  ) {
    this.from = place.byte;
    this.cuts = [{ byte: place.byte, line: place.line }];
  }

  frame({ byteFrom, line }: Frame): void {
    if (byteFrom - this.cuts[this.cuts.length - 1]!.byte >= BLOCK) this.cuts.push({ byte: byteFrom, line });
  }
  add(bytes: Uint8Array): void {
    this.parts.push(bytes);
  }

  rows(): Uint8Array | null {
    if (this.job.file === null) return null;
    const bytes = this.parts.length === 1 ? this.parts[0]! : Buffer.concat(this.parts);
    const rows = new CopyRows(bytes.length + 4096);
    for (const [i, { byte, line }] of this.cuts.entries()) {
      const to = this.cuts[i + 1]?.byte ?? this.from + bytes.length;
      if (to <= byte) continue;
      rows.begin(5);
      rows.int(this.job.sourceId);
      rows.big(byte);
      rows.big(to);
      rows.int(line);
      rows.bytes(bytes.subarray(byte - this.from, to - this.from));
    }
    return rows.finish();
  }
}
