import type { OriginalLines } from '@fadenweg/api';
import { decode, lineStarts, type Encoding } from '@fadenweg/core/reading';
import type { Names } from './names.ts';
import type { KeptBytesRepository } from './kept-bytes.ts';
import type { SourceRow } from './sources.ts';

const BLOCKS = 4;
/** Lines are taken from so many bytes at most. */
const MOST_BYTES = 8 * 1024 * 1024;
/** Characters of a line that are shown; its slice has them all. */
const LONGEST_LINE = 20_000;

/** A file as it was written, from the bytes that were kept. */
export class OriginalText {
  constructor(
    private readonly kept: KeptBytesRepository,
    private readonly names: Names,
  ) {}

  /** Some lines, as many as there are from one on. */
  async lines(source: SourceRow, from: number, count: number): Promise<OriginalLines> {
    const encoding = source.encoding as Encoding;
    const lines: string[] = [];
    let bytes = 0;
    for await (const { chunk, line } of this.walk(source, from, from + count - 1)) {
      const starts = lineStarts(chunk, encoding);
      bytes += chunk.length;
      for (let i = 0; i < starts.length && lines.length < count; i++) {
        const text = chunk.subarray(starts[i]!, starts[i + 1] ?? chunk.length);
        // what stands behind the last line feed is the begin of the next block
        if (i === starts.length - 1 && text.length === 0) break;
        const shown = decode(text, encoding).replace(/\r?\n$/, '');
        const place = line + i - from;
        lines[place] = ((lines[place] ?? '') + shown).slice(0, LONGEST_LINE);
      }
      if (bytes > MOST_BYTES) break;
    }
    return { path: source.path, component: this.names.component(source.component_id), encoding, from, lines, total: source.done_lines };
  }

  /** The bytes of lines from one to another, both included, block by block. */
  async *slice(source: SourceRow, from: number, to: number): AsyncGenerator<Buffer> {
    for await (const { chunk } of this.walk(source, from, to)) yield chunk;
  }

  /** Stretches of bytes that hold these lines, each with the number of its first line. */
  private async *walk(source: SourceRow, from: number, to: number): AsyncGenerator<{ chunk: Buffer; line: number }> {
    const encoding = source.encoding as Encoding;
    let place: Parameters<KeptBytesRepository['blocks']>[1] = { line: from };
    for (;;) {
      const blocks = await this.kept.blocks(source.id, place, BLOCKS);
      for (const block of blocks) {
        if (block.line_from > to) return;
        const starts = lineStarts(block.bytes, encoding);
        const end = starts[to + 1 - block.line_from] ?? block.bytes.length;
        const begin = starts[Math.max(0, from - block.line_from)];
        if (begin !== undefined && begin < end) yield { chunk: block.bytes.subarray(begin, end), line: Math.max(from, block.line_from) };
      }
      const last = blocks.at(-1);
      if (!last || blocks.length < BLOCKS) return;
      place = { behind: last.byte_from };
    }
  }
}
