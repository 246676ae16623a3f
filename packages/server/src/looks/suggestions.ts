import type { KindSuggestions } from '@fadenweg/api';
import type { BestSet, Suggestion } from '@fadenweg/core/identifiers';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { Names } from '../evidence/names.ts';
import { askWorker } from '../platform/threads.ts';
import type { SuggestingData } from './suggesting-worker.ts';

type Found = Omit<KindSuggestions, 'next'>;

/** Longest search for suggestions, in milliseconds. */
const LONGEST = 60_000;

/** Kinds of identifiers that the data seem to hold, found in a thread of their own; one search at a time, its answer kept until something changes. */
export class Suggestions {
  private kept: { of: string; found: Promise<Found> } | null = null;

  constructor(
    private readonly databaseUrl: string,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
  ) {}

  /** @param state anything that changes with the data */
  async find(state: string): Promise<Found> {
    const kinds = await this.declarations.kinds();
    const of = `${state} ${JSON.stringify(kinds)}`;
    if (this.kept?.of !== of) {
      const found = this.search({ databaseUrl: this.databaseUrl, kinds, components: this.names.componentEntries() });
      this.kept = { of, found };
      found.catch(() => (this.kept = null));
    }
    const taken = new Set(kinds.map((kind) => kind.name));
    const { items, best } = await this.kept.found;
    const free = <One extends { name: string }>(one: One): One => ({ ...one, name: freeName(one.name, taken) });
    return { items: items.map(free), best: best && { ...best, kinds: best.kinds.map(free) } };
  }

  private async search(data: SuggestingData): Promise<Found> {
    const { items, best } = await askWorker<{ items: Suggestion[]; best: BestSet | null }>('looks/suggesting-worker', data, LONGEST);
    return {
      items: items.map((one) => ({ ...one, joins: Number.isNaN(one.joins) ? null : one.joins })),
      best: best && {
        ...best,
        kinds: best.kinds.map(({ name, label, role, patterns, fields, normal }) => ({ name, label, role, patterns, fields, normal })),
      },
    };
  }
}

/** A name that no other kind has. */
export function freeName(name: string, taken: ReadonlySet<string>): string {
  const bare = name.slice(0, 36);
  for (let i = 1; ; i++) {
    const free = i === 1 ? bare : `${bare}-${i}`;
    if (!taken.has(free)) return free;
  }
}
