import type { QuietRuleInfo } from '@fadenweg/api';
import { compileRules, searchOfFaults, searchOfRecurring, SETTLED_FAULTS } from '@fadenweg/core/quiet';
import { LONGEST_SEARCH, type Searchable } from '@fadenweg/core/search';
import type { KeptRepository } from './kept.ts';
import type { KnownFaults } from '../evidence/known-faults.ts';
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
  private active: { faults: string; rules: Promise<ActiveRules> } | null = null;
  private learnedTo = -1;

  constructor(
    private readonly kept: KeptRepository,
    private readonly evidence: Pick<EvidenceRows, 'sources' | 'names'>,
    private readonly faults: () => Pick<KnownFaults, 'quiet'>,
  ) {}

  /** A rule was changed: it is read again on the next call. */
  forget(): void {
    this.active = null;
  }
  async rules(): Promise<QuietRuleInfo[]> {
    const [rules, faults] = await Promise.all([this.kept.quietRules(), this.faults().quiet()]);
    return rules.map((rule) => (rule.name === SETTLED_FAULTS.name ? { ...rule, q: searchOfFaults(faults) } : rule));
  }
  async on(): Promise<ActiveRules> {
    const faults = (await this.faults().quiet()).join();
    if (this.active?.faults !== faults) {
      const rules = this.read();
      this.active = { faults, rules };
      rules.catch(() => this.forget());
    }
    return this.active.rules;
  }
  private async read(): Promise<ActiveRules> {
    const rows = (await this.rules()).filter((rule) => rule.on && rule.q !== '');
    return { names: rows.map((rule) => rule.name), searches: rows.map((rule) => rule.q), hides: compileRules(rows) };
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
