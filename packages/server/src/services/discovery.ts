import { once } from 'node:events';
import type { IdentifierKind } from '@fadenweg/api';
import { KEEP, type Discovered } from '@fadenweg/core';
import type { DeclarationRepository } from '../repositories/declarations.ts';
import type { SourceRepository } from '../repositories/sources.ts';
import type { DiscoveringData } from './discovering-worker.ts';
import { freeName } from './suggestions.ts';
import { startWorker } from './workers.ts';

/** Longest search, in milliseconds. */
const LONGEST = 60_000;
/** Who stands for what was discovered, until somebody confirms it. */
const DISCOVERED_BY = 'discovered';

/** Finds links that nobody declared, and takes them up as kinds of their own, marked with what speaks for them. What was taken away stays away. */
export class Discovery {
  constructor(
    private readonly databaseUrl: string,
    private readonly declarations: DeclarationRepository,
    private readonly sources: SourceRepository,
  ) {}

  /** @returns the sources in which a new link occurs; none where nothing was found */
  async run(): Promise<number[]> {
    const kinds = await this.declarations.kinds();
    if (!kinds.some((kind) => kind.role === 'business')) return [];
    const { names, rejected } = await this.declarations.formerKinds();
    const known = new Set([...kinds, ...rejected].map(finds));
    const found = (await this.search({ databaseUrl: this.databaseUrl, kinds })).filter((one) => !known.has(finds(one)));
    const taken = new Set(names);
    for (const { label, patterns, fields, ...evidence } of found) {
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
      };
      await this.declarations.saveKind(kind, DISCOVERED_BY);
    }
    return found.length === 0 ? [] : this.sources.naming(found.flatMap((one) => one.patterns), found.flatMap((one) => one.fields)); // prettier-ignore
  }

  private async search(data: DiscoveringData): Promise<Discovered[]> {
    const worker = startWorker('services/discovering-worker', { workerData: data });
    const timer = setTimeout(() => void worker.terminate(), LONGEST);
    try {
      const [found] = (await Promise.race([
        once(worker, 'message'),
        once(worker, 'exit').then(() => {
          throw new Error('the search for links was ended');
        }),
      ])) as [Discovered[]];
      return found;
    } finally {
      clearTimeout(timer);
    }
  }
}

const finds = ({ patterns, fields }: Pick<IdentifierKind, 'patterns' | 'fields'>): string => JSON.stringify([patterns, fields]);
const nameOf = (label: string): string => label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'link'; // prettier-ignore
