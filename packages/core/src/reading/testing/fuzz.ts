import { frame } from '../framing.ts';
import { guessFormats, openReader, sampleOf } from '../registry.ts';
import { emptyDraft, clearDraft } from '../types.ts';
import { SAMPLES } from './samples.ts';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
/** What went wrong with one mutated source. */
export interface FuzzFault {
  format: string;
  fault: string;
  /** The source, so that it can be tried again. */
  bytes: Uint8Array;
}

/** Numbers from 0 to 1, the same for a seed (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const ODD = [0, 9, 10, 13, 27, 34, 39, 44, 60, 62, 91, 92, 93, 123, 125, 127, 128, 192, 237, 255];

/** Bytes with some taken out, put in, doubled, swapped or cut off. */
export function mutate(bytes: Uint8Array, random: () => number): Uint8Array {
  let changed = [...bytes];
  const times = 1 + Math.floor(random() * 6);
  for (let i = 0; i < times && changed.length > 0; i++) {
    const at = Math.floor(random() * changed.length);
    const length = Math.floor(random() * random() * 40);
    const kind = Math.floor(random() * 6);
    if (kind === 0) changed.splice(at, 1 + length);
    else if (kind === 1) changed.splice(at, 0, ODD[Math.floor(random() * ODD.length)]!);
    else if (kind === 2) changed.splice(at, 0, ...changed.slice(at, at + length));
    else if (kind === 3) changed[at] = Math.floor(random() * 256);
    else if (kind === 4) changed = [...changed.slice(at), ...changed.slice(0, at)];
    else changed.length = at + 1;
  }
  return Uint8Array.from(changed);
}

/**
 * Reads mutated samples of every format with the reader of that format, in blocks of odd sizes, and tells what is not as it has to be:
 * an exception, a record that leaves its place, bytes of lines that no record holds, a record that takes longer than `slowMs`.
 *
 * @param sources how many mutated sources
 * @param now a clock in milliseconds
 */
export function fuzz(
  seed: number,
  sources: number,
  now: () => number,
  slowMs = 1000,
): { lines: number; records: number; slowestMs: number; faults: FuzzFault[] } {
  const random = randomFrom(seed);
  const faults: FuzzFault[] = [];
  const encoder = new TextEncoder();
  const draft = emptyDraft();
  let lines = 0;
  let records = 0;
  let slowestMs = 0;
  for (let i = 0; i < sources; i++) {
    const sample = SAMPLES[i % SAMPLES.length]!;
    const bytes = mutate(encoder.encode(`${sample.text}\n${sample.text}`), random);
    const fault = (text: string): void => {
      if (faults.length < 50) faults.push({ format: sample.format, fault: text, bytes });
    };
    for (const byte of bytes) if (byte === 10) lines++;
    const begin = now();
    try {
      const reader = openReader(sample.format, sampleOf('x', sample.text, true), { zone: 'Europe/Berlin', modified: 1.795e15 });
      if (i % 50 === 0) guessFormats(sampleOf('x', String.fromCharCode(...bytes), true));
      let place = { byte: 0, line: 1 };
      let at = 0;
      let reach = 1 + Math.floor(random() * bytes.length);
      while (place.byte < bytes.length) {
        const chunk = bytes.subarray(place.byte, place.byte + reach);
        const last = place.byte + chunk.length >= bytes.length;
        const next = frame(chunk, place, 'utf-8', reader, last, (one) => {
          records++;
          if (one.byteFrom < at || one.byteTo <= one.byteFrom) fault(`a record from ${one.byteFrom} to ${one.byteTo} behind ${at}`);
          if (reader.cut === undefined && one.byteFrom !== at) fault(`bytes from ${at} to ${one.byteFrom} belong to no record`);
          at = one.byteTo;
          clearDraft(draft);
          reader.read(one.text, draft);
          if (draft.understood && !Number.isFinite(draft.at)) fault('understood, but without a time');
          if (!draft.understood && !draft.framing && draft.message !== one.text) fault('not understood, but not kept whole');
        });
        if (next.byte === place.byte && last) break;
        reach = next.byte === place.byte ? reach + 100 : 1 + Math.floor(random() * 300);
        place = next;
      }
      if (reader.cut === undefined && at !== bytes.length) fault(`records end at ${at} of ${bytes.length}`);
    } catch (error) {
      fault(String(error));
    }
    const took = now() - begin;
    if (took > slowestMs) slowestMs = took;
    if (took > slowMs) fault(`took ${Math.round(took)} ms`);
  }
  return { lines, records, slowestMs, faults };
}
