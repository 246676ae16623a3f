import type { IdentifierKind } from '@fadenweg/api';
import { KEEP, type Discovered } from '@fadenweg/core/identifiers';
import { holdsIn, type DeclarationRepository } from '../declared/declarations.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { DiscoveringData } from './discovering-worker.ts';
import { freeName } from './suggestions.ts';
import { Access } from '../platform/access.ts';
import { askWorker } from '../platform/threads.ts';

/** Longest search, in milliseconds. */
const LONGEST = 60_000;

/** Finds links that nobody declared, and takes them up as kinds of their own, marked with what speaks for them. What was taken away stays away. */
export class Discovery {
  constructor(
    private readonly databaseUrl: string,
    private readonly declarations: DeclarationRepository,
    private readonly sources: SourceRepository,
  ) {}

  /**
   * @param environment only what was written there is looked at, and what is found holds there alone until somebody confirms it
   * @param due told of the sources that will have to be read again, before anything is changed
   * @returns the sources in which a new link occurs; none where nothing was found
   */
  async run(environment: string, due: (ids: readonly number[]) => Promise<void>): Promise<number[]> {
    const all = await this.declarations.kinds();
    const kinds = all.filter((kind) => holdsIn(kind, environment));
    if (!kinds.some((kind) => kind.role === 'business')) return [];
    const { names, rejected } = await this.declarations.formerKinds();
    const known = new Set([...kinds, ...rejected].map(finds));
    const found = (
      await askWorker<Discovered[]>(
        'looks/discovering-worker',
        { databaseUrl: this.databaseUrl, kinds, environment } satisfies DiscoveringData,
        LONGEST,
      )
    ).filter((one) => !known.has(finds(one)));
    if (found.length === 0) return [];
    const sources = await this.sources.naming(found.flatMap((one) => one.patterns), found.flatMap((one) => one.fields), environment); // prettier-ignore
    await due(sources);
    const taken = new Set(names);
    for (const { label, patterns, fields, ...evidence } of found) {
      const elsewhere = all.find((kind) => kind.environments && finds(kind) === finds({ patterns, fields }));
      if (elsewhere) {
        const { id: _id, ...kind } = elsewhere;
        await this.declarations.saveKind({ ...kind, environments: [...kind.environments!, environment].sort() }, Access.discovery);
        continue;
      }
      const name = freeName(nameOf(label), taken);
      taken.add(name);
      const kind: IdentifierKind = {
        name,
        label,
        role: 'link',
        patterns,
        fields,
        normal: KEEP,
        scope: 'global',
        leaseMs: null,
        discovered: evidence,
        environments: [environment],
      };
      await this.declarations.saveKind(kind, Access.discovery);
    }
    return sources;
  }
}

const finds = ({ patterns, fields }: Pick<IdentifierKind, 'patterns' | 'fields'>): string => JSON.stringify([patterns, fields]);
const nameOf = (label: string): string => label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'link'; // prettier-ignore
