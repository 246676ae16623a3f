import type { Change, GroupsPart, StepResult, StrandGrouping } from '@fadenweg/api';
import { filledSearch, MOST_TIMES, MOST_VALUES, type RunbookStep, type StepLook, type StepSum } from '@fadenweg/core/runbooks';
import { durationOf } from '@fadenweg/core/search';
import { isoMicros } from '@fadenweg/core/units';
import { microsOf, searchOf } from '../platform/http/inputs.ts';
import { founderOfId } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import type { StrandFilter } from '../weaving/strand-rows.ts';
import type { Changes } from '../changes/changes.ts';
import type { FindService } from '../find/find-service.ts';
import { parseRecordKey } from '../evidence/record-key.ts';
import type { SearchService } from '../strands/search-service.ts';
import type { StrandService } from '../strands/strand-service.ts';

/** What is shown of each kind. */
const SHOWN = 20;
/** Records of a step are gone through so long at most, in milliseconds. */
const LONGEST = 8000;
/** Strands whose cause is looked up one by one. */
const MOST_CAUSES = 40;

export interface Stretch {
  from: number;
  to: number;
}
export interface RunContext {
  blanks: Readonly<Record<string, string>>;
  window: Stretch;
  environment: string[] | undefined;
  /** What earlier steps came to, by name. */
  earlier: Readonly<Record<string, StepSum>>;
}
type Found = Omit<StepResult<StepSum>, 'step'>;

/** Runs one step of a runbook. */
export class StepRunner {
  constructor(
    private readonly find: FindService,
    private readonly strands: StrandService,
    private readonly search: SearchService,
    private readonly changes: Changes,
    private readonly names: Names,
  ) {}

  async run(step: RunbookStep, context: RunContext): Promise<StepResult<StepSum>> {
    const windows = windowsOf(step, context);
    const found = windows.length === 0 ? nothing() : await this.look(step.look, windows, context);
    return { step: step.name, ...found, windows: windows.map(({ from, to }) => ({ from: isoMicros(from), to: isoMicros(to) })) };
  }

  private look(look: StepLook, windows: readonly Stretch[], context: RunContext): Promise<Found> {
    if (look.what === 'records') return this.records(look, windows, context);
    return look.what === 'strands' ? this.strandsOf(look, windows, context) : this.changesOf(look, windows, context);
  }

  private async records(look: Extract<StepLook, { what: 'records' }>, windows: readonly Stretch[], context: RunContext): Promise<Found> {
    const q = filledSearch(look.q, context.blanks, context.earlier);
    if (q === null) return nothing();
    const counts = new Map<string, number>();
    const found = nothing(q);
    const { sum } = found;
    const until = Date.now() + LONGEST;
    const strands = new Map<string, Found['strands'][number]>();
    for (const { from, to } of windows) {
      const asked = { search: searchOf(q), from, to, environment: context.environment, quiet: false, order: 'latest' as const, after: null };
      let part: GroupsPart | null = null;
      do {
        part = await this.find.groups({ ...asked, after: part?.next ? parseRecordKey(part.next) : null }, look.by || 'component');
        sum.count += part.total;
        for (const one of part.groups) {
          counts.set(one.value, (counts.get(one.value) ?? 0) + one.count);
          widen(sum, one.firstAt, one.lastAt);
        }
        for (const one of part.strands) strands.set(one.id, one);
      } while (part.next !== null && Date.now() < until);
      if (part.next !== null) sum.partial = true;
      if (found.records.length < SHOWN)
        found.records.push(...(await this.find.page({ ...asked, order: 'oldest' }, SHOWN - found.records.length)).items);
    }
    sum.times = found.records.map((one) => one.at).sort(); // prettier-ignore
    widen(sum, sum.times[0] ?? null, sum.times.at(-1) ?? null);
    const sorted = [...counts].sort(([, a], [, b]) => b - a);
    found.groups = sorted.slice(0, MOST_VALUES).map(([value, count]) => ({ value: strands.get(value)?.name ?? value, count }));
    sum.values = found.groups;
    sum.strands = sorted.filter(([value]) => strands.has(value)).slice(0, MOST_VALUES).map(([value]) => value); // prettier-ignore
    found.strands = sum.strands.slice(0, SHOWN).map((id) => strands.get(id)!);
    return found;
  }

  private async strandsOf(look: Extract<StepLook, { what: 'strands' }>, windows: readonly Stretch[], context: RunContext): Promise<Found> {
    const fill = (template: string): string => filledName(template, context.blanks);
    const list = (template: string): string[] | undefined => {
      const words = fill(template).split(',').map((one) => one.trim()).filter(Boolean); // prettier-ignore
      return words.length > 0 ? words : undefined;
    };
    const among = look.among === '' ? null : (context.earlier[look.among]?.strands ?? []);
    const identifier = fill(look.identifier);
    if (among?.length === 0 || (look.identifier !== '' && identifier === '')) return nothing();
    const filter: StrandFilter = {
      flow: list(look.flow),
      outcome: list(look.outcome),
      failedIn: list(look.failedIn),
      components: list(look.component)?.map((name) => this.names.knownComponent(name) ?? 0),
      environment: context.environment,
      ...(identifier === '' ? {} : await this.search.narrow(identifier)),
      ...(among === null ? {} : { founders: among.map(founderOfId).filter((one) => one !== null) }),
      ...(among === null ? { from: Math.min(...windows.map((one) => one.from)), to: Math.max(...windows.map((one) => one.to)) } : {}),
    };
    const found = nothing();
    const { sum } = found;
    const [first, last, sentences] = await Promise.all([
      this.strands.list(filter, 'started', null, MOST_VALUES),
      this.strands.list(filter, '-started', null, SHOWN),
      this.strands.groups('finding', filter, 5),
    ]);
    found.strands = first.items.slice(0, SHOWN);
    sum.count = first.next === null ? first.items.length : (await this.strands.counts(filter)).reduce((all, one) => all + Number(one.count), 0);
    sum.times = first.items.slice(0, MOST_TIMES).map((one) => one.startedAt);
    sum.first = first.items[0]?.startedAt ?? null;
    sum.last = last.items[0]?.startedAt ?? null;
    sum.strands = first.items.map((one) => one.id);
    sum.sentences = sentences.filter((one) => one.label !== '').map((one) => ({ value: one.label, count: one.strands }));
    if (look.by === 'none') sum.values = first.items.map((one) => ({ value: one.name, count: 1 }));
    else if (look.by === 'caused-by') {
      sum.values = await this.causes(filter);
      sum.count = sum.values.reduce((all, one) => all + one.count, 0);
    } else {
      const by: StrandGrouping = look.by === 'failedIn' ? 'failed-in' : look.by;
      sum.values = (await this.strands.groups(by, filter, MOST_VALUES)).map((one) => ({ value: one.label, count: one.strands }));
    }
    found.groups = look.by === 'none' ? [] : sum.values;
    return found;
  }

  /** Which strands caused what happened to these. */
  private async causes(filter: StrandFilter): Promise<StepSum['values']> {
    const counts = new Map<string, number>();
    for (const row of await this.strands.rows(filter, null, MOST_CAUSES)) {
      const { findings } = await this.strands.strand(row);
      const cause = findings.find((one) => one.causedBy?.strand)?.causedBy?.strand;
      const name = cause?.slice(cause.indexOf(':') + 1);
      if (name !== undefined) counts.set(name, (counts.get(name) ?? 0) + 1);
    }
    return [...counts].map(([value, count]) => ({ value, count })).sort((a, b) => b.count - a.count);
  }

  private async changesOf(look: Extract<StepLook, { what: 'changes' }>, windows: readonly Stretch[], context: RunContext): Promise<Found> {
    const component = filledName(look.component, context.blanks);
    const found = nothing();
    const known = new Map<string, Change>();
    for (const { from, to } of windows) {
      const filter = { from, to, components: component === '' ? undefined : [component], environment: context.environment };
      const { items, next } = await this.changes.list(filter, null, 500);
      for (const one of items) known.set(one.id, one);
      if (next !== null) found.sum.partial = true;
    }
    const all = [...known.values()].sort((a, b) => a.at.localeCompare(b.at));
    Object.assign(found.sum, { count: all.length, first: all[0]?.at ?? null, last: all.at(-1)?.at ?? null });
    found.sum.times = all.slice(0, MOST_TIMES).map((one) => one.at);
    // the latest is the nearest before
    found.sum.values = [...all].reverse().slice(0, MOST_VALUES).map((one) => ({ value: one.words, count: 1 })); // prettier-ignore
    found.changes = all.slice(-SHOWN);
    return found;
  }
}

const nothing = (q = ''): Found => ({
  sum: { count: 0, partial: false, first: null, last: null, times: [], values: [], strands: [], sentences: [] },
  windows: [],
  q,
  groups: [],
  strands: [],
  records: [],
  changes: [],
});
const filledName = (template: string, blanks: Readonly<Record<string, string>>): string =>
  template.replace(/\{([a-z0-9-]+)\}/g, (_place, name: string) => blanks[name] ?? '').trim();

function widen(sum: StepSum, first: string | null, last: string | null): void {
  if (first !== null && (sum.first === null || first < sum.first)) sum.first = first;
  if (last !== null && (sum.last === null || last > sum.last)) sum.last = last;
}

/** The stretches of a step, none of them twice: the whole window, or around what an earlier step found. */
export function windowsOf({ around }: Pick<RunbookStep, 'around'>, { window, earlier }: Pick<RunContext, 'window' | 'earlier'>): Stretch[] {
  if (!around) return [window];
  const { times = [], first = null } = earlier[around.step] ?? {};
  const wanted = around.at === 'first' ? (first === null ? [] : [first]) : times;
  const stretches = wanted
    .map((at) => ({ from: microsOf(at) - durationOf(around.before), to: microsOf(at) + durationOf(around.after) }))
    .sort((a, b) => a.from - b.from);
  const merged: Stretch[] = [];
  for (const one of stretches) {
    const before = merged.at(-1);
    if (before && one.from <= before.to) before.to = Math.max(before.to, one.to);
    else merged.push(one);
  }
  return merged;
}
