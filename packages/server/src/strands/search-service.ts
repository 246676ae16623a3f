import type { ListedAnswer, SearchAnswer, SearchHit } from '@fadenweg/api';
import { candidatesIn, isList, listedIn } from '@fadenweg/core/search';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';
import type { Presenter } from './present.ts';

const SHOWN = 50;
const MOST_HITS = 12;

/** From a pasted text to the strands of the identifiers in it. */
export class SearchService {
  constructor(
    private readonly identifiers: IdentifierRepository,
    private readonly strands: StrandRepository,
    private readonly declarations: DeclarationRepository,
    private readonly presenter: Presenter,
  ) {}

  /** The strands that an identifier stands for, as a filter: its own, or those of a party. */
  async narrow(text: string): Promise<{ founders?: number[]; parties?: number[] }> {
    const seen = await this.identifiers.seen(candidatesIn(text, await this.declarations.kinds()));
    const parties = seen.filter((one) => one.role === 'shared').map((one) => one.key);
    const tying = seen.filter((one) => one.role !== 'shared').map((one) => one.key);
    const founders = (await Promise.all(tying.map((key) => this.identifiers.ties(key)))).flat().map((tie) => tie.founder);
    return founders.length > 0 || parties.length === 0 ? { founders } : { parties };
  }

  /**
   * Each word of a list by itself: what it is, and the strand that it leads to.
   *
   * @param nameOf names of components, where it is asked through which of them the strands pass
   */
  async listed(text: string, nameOf: ((id: number) => string) | null): Promise<ListedAnswer> {
    const kinds = await this.declarations.kinds();
    const words = listedIn(text);
    const candidates = words.map((word) => candidatesIn(word, kinds));
    const seen = new Map((await this.identifiers.seen(candidates.flat())).map((one) => [one.key, one]));
    const named = candidates.map((own) => {
      const hits = own.flatMap((one) => seen.get(one.key) ?? []);
      return hits.find((one) => one.role === 'business') ?? hits[0] ?? null;
    });
    const ties = await this.identifiers.latestTies(named.flatMap((one) => (one && one.role !== 'shared' ? one.key : [])));
    const rows = await this.strands.byFounders([...ties.values()].map((one) => one.founder));
    const summaries = await this.presenter.summaries(rows, await this.declarations.flows());
    const passed = nameOf ? new Map(rows.map((row) => [row.founder, row.components])) : null;
    const byFounder = new Map(rows.map((row, i) => [row.founder, summaries[i]!]));
    return {
      items: words.map((word, i) => {
        const one = named[i] ?? null;
        const tie = one ? ties.get(one.key) : undefined;
        return {
          word,
          kind: one?.label ?? null,
          records: one !== null,
          strand: tie ? (byFounder.get(tie.founder) ?? null) : null,
          further: tie ? tie.count - 1 : 0,
          components: passed && tie ? (passed.get(tie.founder) ?? []).map(nameOf!).sort() : null,
        };
      }),
    };
  }

  async search(text: string): Promise<SearchAnswer> {
    const kinds = await this.declarations.kinds();
    const candidates = candidatesIn(text, kinds);
    const seen = (await this.identifiers.seen(candidates)).slice(0, MOST_HITS);
    const flows = await this.declarations.flows();
    const hits: SearchHit[] = [];
    for (const one of seen) {
      const ties = one.role === 'shared' ? [] : await this.identifiers.ties(one.key);
      const founders = ties.map((tie) => tie.founder);
      const rows =
        one.role === 'shared'
          ? await this.strands.list({ parties: [one.key] }, '-started', null, SHOWN + 1)
          : founders.length > 0
            ? await this.strands.list({ founders }, '-started', null, SHOWN + 1)
            : [];
      hits.push({
        kind: one.kind,
        label: one.label,
        role: one.role,
        value: one.value,
        strands: await this.presenter.summaries(rows.slice(0, SHOWN), flows),
        more: rows.length > SHOWN,
      });
    }
    const sure = candidates.filter((one) => one.sure);
    const business = hits.filter((hit) => hit.role === 'business');
    const decisive = business.length > 0 ? business : hits;
    const found = new Set(decisive.flatMap((hit) => hit.strands.map((strand) => strand.id)));
    return {
      text,
      hits,
      sure: sure.length > 0,
      list: isList(text, kinds),
      only: found.size === 1 ? [...found][0]! : null,
      looked: (sure.length > 0 ? sure : candidates)
        .slice(0, 12)
        .map(({ kind, value }) => ({ kind: kinds.find((one) => one.name === kind)?.label ?? kind, value })),
    };
  }
}
