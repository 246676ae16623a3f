import type { InCommon, InCommonValue } from '@fadenweg/api';
import { contrast, type Counted } from '@fadenweg/core/statistics';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import type { RecordRepository } from '../evidence/records.ts';
import type { StrandFilter, StrandRepository, StrandRow } from '../weaving/strand-rows.ts';

/** Strands of a selection that are looked at, and others. */
const INSIDE = 200;
const OUTSIDE = 400;
/** The others are sought among so many times as many, since some of those belong to the selection. */
const SOUGHT = 4;
const MOST_RECORDS = 60_000;
/** Values of each of the two sorts. */
const MOST_VALUES = 15;
/** What fewer of the others have is what happened itself, or followed from it. */
const HARDLY = 0.02;
/** Longer values are texts. */
const LONGEST = 60;
/** A value that names one strand alone tells nothing. */
const FEWEST = 3;

type Feature = Pick<InCommonValue, 'kind' | 'component' | 'field' | 'value'>;

/** What strands of a selection have in common that others of their flow do not have, or hardly. */
export class InCommonService {
  constructor(
    private readonly strands: StrandRepository,
    private readonly records: RecordRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly names: Names,
  ) {}

  async of(filter: StrandFilter): Promise<InCommon> {
    const inside = await this.strands.sample(filter, INSIDE);
    const strands = (await this.strands.counts(filter)).reduce((sum, one) => sum + Number(one.count), 0);
    if (inside.length === 0) return { strands, inside: 0, outside: 0, values: [] };
    const outside = await this.others(filter, inside);
    const features = await this.features([...inside, ...outside]);
    const own = new Set(inside.map((one) => one.founder));
    const known = new Map<string, Feature>();
    const counts = new Map<string, Counted>();
    for (const [founder, set] of features) {
      for (const [key, feature] of set) {
        known.set(key, feature);
        let one = counts.get(key);
        if (!one) counts.set(key, (one = { field: key, value: '', inside: 0, outside: 0 }));
        if (own.has(founder)) one.inside++;
        else one.outside++;
      }
    }
    const often = [...counts.values()].filter((one) => one.inside >= FEWEST);
    const telling = contrast(often, inside.length, outside.length, often.length).filter((one) => one.odds > 1);
    const isOnly = (one: { outside: number }): boolean => one.outside < outside.length * HARDLY;
    const sorts = [telling.filter((one) => !isOnly(one)), telling.filter(isOnly)].flatMap((list) => list.slice(0, MOST_VALUES));
    return {
      strands,
      inside: inside.length,
      outside: outside.length,
      values: sorts.map((one) => ({ ...known.get(one.field)!, inside: one.inside, outside: one.outside, odds: one.odds, only: isOnly(one) })),
    };
  }

  /** Strands of the same flows, from about the same time, that do not belong to the selection. */
  private async others(filter: StrandFilter, inside: readonly StrandRow[]): Promise<StrandRow[]> {
    const flows = [...new Set(inside.map((one) => one.flow ?? 'none'))];
    const [first, last] = [Math.min(...inside.map((one) => one.started_at)), Math.max(...inside.map((one) => one.ended_at))];
    // as long before and behind as they themselves go on: what changed when they began shows too
    const around = Math.max(3_600_000_000, last - first);
    const sought = await this.strands.sample(
      { flow: flows, from: first - around, to: last + around, environment: filter.environment },
      SOUGHT * OUTSIDE,
    );
    const own = await this.strands.fitting(filter, sought.map((one) => one.founder)); // prettier-ignore
    return sought.filter((one) => !own.has(one.founder)).slice(0, OUTSIDE);
  }

  /** By founder, what its strand is about and what is said of it, each once. */
  private async features(rows: readonly StrandRow[]): Promise<Map<number, Map<string, Feature>>> {
    const features = new Map<number, Map<string, Feature>>(rows.map((row) => [row.founder, new Map()]));
    const add = (founder: number, feature: Feature): void => void features.get(founder)?.set(`${feature.kind} ${feature.component} ${feature.field} ${feature.value}`, feature); // prettier-ignore
    const parties = await this.identifiers.named([...new Set(rows.flatMap((row) => row.parties))]);
    for (const { founder, parties: own } of rows) {
      for (const key of own) {
        const name = parties.get(key);
        if (name) add(founder, { kind: 'party', component: '', field: name.kind, value: name.value });
      }
    }
    const records = await this.records.aboutAll([...features.keys()], MOST_RECORDS);
    const shapes = await this.records.shapes([...new Set(records.map((record) => record.shape))]);
    const taken = new Set([...parties.values()].map((name) => name.kind));
    for (const { founder, component_id, host_id, shape, attributes } of records) {
      const component = this.names.component(component_id);
      const host = this.names.host(host_id);
      if (host !== '') add(founder, { kind: 'host', component, field: 'host', value: host });
      const words = shapes.get(shape);
      if (words) add(founder, { kind: 'saying', component, field: '', value: words });
      for (const [field, value] of Object.entries(attributes ?? {})) {
        const text = String(value);
        if (text !== '' && text.length <= LONGEST && !taken.has(field)) add(founder, { kind: 'field', component, field, value: text });
      }
    }
    return features;
  }
}
