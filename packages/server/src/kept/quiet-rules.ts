import type { QuietRuleInfo } from '@fadenweg/api';
import { compileRules, searchOfRecurring } from '@fadenweg/core/quiet';
import { LONGEST_SEARCH, type Searchable } from '@fadenweg/core/search';
import type { KeptRepository } from './kept.ts';
import type { EvidenceRows } from '../evidence/room.ts';

/** The rules that are on, ready to be asked. */
export interface ActiveRules {
  names: string[];
  /** Texts of their searches, for what they need to know of a record. */
  searches: string[];
  /** The place of the rule that hides a record, -1 for none. */
  hides(record: Searchable): number;
}

/** Keeps the quiet rules that are on, compiled, and learns which messages recur. */
export class QuietRules {
  private active: Promise<ActiveRules> | null = null;
  private learnedTo = -1;

  constructor(
    private readonly kept: KeptRepository,
    private readonly evidence: Pick<EvidenceRows, 'sources' | 'names'>,
  ) {}

  /** A rule was changed: it is read again on the next call. */
  forget(): void {
    this.active = null;
  }
  rules(): Promise<QuietRuleInfo[]> {
    return this.kept.quietRules();
  }
  on(): Promise<ActiveRules> {
    if (!this.active) {
      const reading = this.read();
      this.active = reading;
      reading.catch(() => this.forget());
    }
    return this.active;
  }
  private async read(): Promise<ActiveRules> {
    const rules = (await this.rules()).filter((rule) => rule.on && rule.q !== '');
    return { names: rules.map((rule) => rule.name), searches: rules.map((rule) => rule.q), hides: compileRules(rules) };
  }

  /** Learns anew what recurs, if the evidence reaches further than the last time. */
  async learn(): Promise<void> {
    const end = await this.evidence.sources.evidenceEnd();
    if (end === this.learnedTo) return;
    const found = await this.kept.recurringBefore(end, this.evidence.names.component);
    await this.kept.learnHeartbeats(searchOfRecurring(found, LONGEST_SEARCH - 100));
    this.learnedTo = end;
    this.forget();
  }
}
