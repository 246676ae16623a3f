import type { WeightRuleInfo } from '@fadenweg/api';
import { compileWeights, type WeightRules } from '@fadenweg/core/search';
import { weightIndex } from '@fadenweg/core/weights';
import type { KeptRepository } from './kept.ts';

/** What people say weighs how much, kept compiled. */
export class WeighedByPeople {
  private active: Promise<WeightRules> | null = null;
  constructor(private readonly kept: KeptRepository) {}

  /** One was changed: they are read again on the next call. */
  forget(): void {
    this.active = null;
  }
  rules(): Promise<WeightRuleInfo[]> {
    return this.kept.weightRules();
  }
  on(): Promise<WeightRules> {
    if (!this.active) {
      this.active = this.rules().then((rules) => compileWeights(rules.map((one) => ({ ...one, weight: weightIndex(one.weight) as 0 | 1 | 2 | 3 }))));
      this.active.catch(() => this.forget());
    }
    return this.active;
  }
}
