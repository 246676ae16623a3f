import { signOf, versionIn, type Sign } from '@fadenweg/core/changes';
import { firstLine } from '@fadenweg/core/findings';
import type { Draft } from '@fadenweg/core/reading';
import { shapeHash } from '@fadenweg/core/shapes';
import type { SignRow } from '../../evidence/batch.ts';

/** Signs of one batch that are alike are told one by one up to so many, then as one stretch: that is routine. */
const MOST_ALIKE = 12;
/** Signs of one batch, at most; a source in which everything changes tells nothing. */
const MOST = 1000;
const SEPARATOR = '\u0001';

/** Collects what the records of a batch tell about changes. */
export class SignCollector {
  private rows = new Map<string, SignRow>();
  private alike = new Map<string, { count: number; last: string }>();

  /** @param alone it belongs to no transaction by its identifiers: only then a start or a setting counts */
  note({ message, fields, at }: Draft, component: string, host: string, id: number, alone: boolean): void {
    const version = versionIn(fields);
    if (version !== '') this.add({ kind: 'version', subject: '', before: '', after: version }, message, component, host, at, id);
    if (!alone) return;
    const sign = signOf(message, fields);
    if (sign) this.add(sign, message, component, host, at, id);
  }

  take(): SignRow[] {
    const rows = [...this.rows.values()];
    this.rows = new Map();
    this.alike = new Map();
    return rows;
  }

  private add(sign: Sign, message: string, component: string, host: string, at: number, id: number): void {
    const { kind, subject, before, after } = sign;
    // states hold until they change; each start, stop and setting is an event of its own minute
    const when = kind === 'version' ? '' : Math.floor(at / 60_000_000);
    const place = [kind, component, host].join(SEPARATOR);
    const key = [place, subject, before, after, when].join(SEPARATOR);
    const known = this.rows.get(key);
    if (known) {
      extend(known, at, id);
      return;
    }
    const words = [place, shapeHash(message)].join(SEPARATOR);
    const alike = this.alike.get(words) ?? { count: 0, last: key };
    if (alike.count >= MOST_ALIKE) {
      extend(this.rows.get(alike.last)!, at, id);
      return;
    }
    if (this.rows.size >= MOST) return;
    this.rows.set(key, { ...sign, component, host, text: firstLine(message), first: at, firstId: id, last: at, count: 1 });
    this.alike.set(words, { count: alike.count + 1, last: key });
  }
}

function extend(row: SignRow, at: number, id: number): void {
  row.count++;
  if (at > row.last) row.last = at;
  if (at >= row.first) return;
  row.first = at;
  row.firstId = id;
}
