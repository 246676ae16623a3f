import type { FieldValue } from '../reading/types.ts';

/** What names of fields, their last part without marks between words, say of who worked. */
const PARTS = new Map<string, 'thread' | 'process'>([
  ['thread', 'thread'],
  ['threadname', 'thread'],
  ['threadid', 'thread'],
  ['tid', 'thread'],
  ['worker', 'thread'],
  ['fiber', 'thread'],
  ['goroutine', 'thread'],
  ['pid', 'process'],
  ['processid', 'process'],
  ['procid', 'process'],
]);
const lastPart = (name: string): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase().replace(/[_-]/g, ''); // prettier-ignore

/** Whether a field names the thread or process that worked. */
export const isLaneField = (name: string): boolean => PARTS.has(lastPart(name));

/** Tells records of one source apart by the thread or process that wrote them. One for each source; names are looked at once. */
export class LaneFinder {
  private readonly known = new Map<string, 'thread' | 'process' | null>();

  /** @param by a field that parts the work as a thread would, '' for none */
  constructor(by = '') {
    if (by !== '') this.known.set(by, 'thread');
  }

  /** A number for the thread and process that a record's fields name, 32 bits with sign; null where they name none. */
  laneOf(fields: Readonly<Record<string, FieldValue>>): number | null {
    let lane: number | null = null;
    for (const name in fields) {
      let part = this.known.get(name);
      if (part === undefined) {
        part = PARTS.get(lastPart(name)) ?? null;
        if (this.known.size < 10_000) this.known.set(name, part);
      }
      if (part === null) continue;
      // by which field comes first is of no account
      lane = ((lane ?? 0) + hashed(`${part} ${fields[name]!}`)) | 0;
    }
    return lane;
  }
}

/** FNV-1a over UTF-16 units, 32 bits. */
function hashed(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash;
}
