import type { KindSuggestions } from '@fadenweg/api';
import type { SourceRepository } from '../evidence/sources.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import type { Suggestions } from './suggestions.ts';

/** What could be declared, by what the data hold. */
export function suggestionRoutes(suggestions: Suggestions, sources: SourceRepository): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/identifier-kinds/suggestions',
      summary:
        'Kinds of identifiers that the data seem to hold, with figures and a proposed role; the set that names transactions best, where none is declared',
      async run(): Promise<KindSuggestions> {
        const rows = await sources.families();
        return { ...(await suggestions.find(`${rows.length} ${rows.reduce((sum, row) => sum + row.records, 0)}`)), next: null };
      },
    }),
  ];
}
