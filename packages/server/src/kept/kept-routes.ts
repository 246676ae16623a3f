import Joi from 'joi';
import type { Page, QuietRuleBody, QuietRuleInfo, Saved } from '@fadenweg/api';
import { HEARTBEATS, SETTLED_FAULTS } from '@fadenweg/core/quiet';
import { LONGEST_SEARCH, parseSearch } from '@fadenweg/core/search';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { name, numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { KeptRepository } from './kept.ts';
import type { QuietRules } from './quiet-rules.ts';

const title = Joi.string().trim().min(1).max(80).required();
const ruleBody = Joi.object({
  name: name.required(),
  label: title,
  why: Joi.string().allow('').max(300).default(''),
  q: Joi.string().trim().max(LONGEST_SEARCH).required().allow(''),
  on: Joi.boolean().default(true),
});
const columnList = Joi.array()
  .items(Joi.object({ field: Joi.string().min(1).max(100).required(), width: Joi.number().min(0).max(2000).required() }))
  .min(1)
  .max(40)
  .unique('field')
  .required();
const columns = Joi.object({
  columns: columnList,
  density: Joi.string().valid('close', 'usual', 'wide').default('usual'),
  wrap: Joi.boolean().default(false),
  rank: Joi.string()
    .pattern(/^.{1,100}\.(up|down)$/, 'a field and up or down')
    .allow(null)
    .default(null),
});
/** What an address may restore. */
const PARAMETERS = ['q', 'w', 'e', 'order', 'rank', 'show', 'quiet', 'src', 'off', 'cols', 'view', 'mark'];
const search = Joi.object({
  about: Joi.string().allow('').max(500).default(''),
  address: Joi.object(Object.fromEntries(PARAMETERS.map((one) => [one, Joi.string().allow('').max(LONGEST_SEARCH)]))).required(),
});
const WHATS: readonly Saved['what'][] = ['search', 'columns', 'strand-columns'];
const savedBody = Joi.object({
  what: Joi.string()
    .valid(...WHATS)
    .required(),
  name: title,
  shared: Joi.boolean().default(false),
  body: Joi.when('what', {
    switch: [
      { is: 'columns', then: columns },
      { is: 'strand-columns', then: Joi.object({ columns: columnList }) },
    ],
    otherwise: search,
  }).required(),
});
type SavedBody = Pick<Saved, 'what' | 'name' | 'shared' | 'body'>;

/** Rules whose searches are not written by people. */
const LEARNED = new Set<string>([HEARTBEATS.name, SETTLED_FAULTS.name]);

/** What people keep: quiet rules, saved searches, column sets. */
export function keptRoutes(kept: KeptRepository, quiet: QuietRules): AnyEndpoint[] {
  const readable = (q: string): void => {
    const { search: found, problem } = parseSearch(q);
    if (problem)
      throw new Refusal(400, 'The search is not understood', `${problem.message} (character ${problem.from + 1})`, problem.proposal ?? undefined);
    if (found.words.length === 0 && found.condition === null) throw new Refusal(400, 'The rule hides everything', 'Its search finds every record.');
  };
  const changeable = async (id: number): Promise<Saved> => {
    const found = await kept.savedById(id);
    if (!found) throw notFound('What was saved');
    if (found.supplied)
      throw new Refusal(409, 'It comes with the application', 'What is supplied cannot be changed.', 'Save a copy under a name of its own.');
    return found;
  };
  return [
    endpoint({
      method: 'get',
      path: '/quiet-rules',
      summary: 'Rules that take noise out of sight',
      async run(): Promise<Page<QuietRuleInfo>> {
        return { items: await quiet.rules(), next: null };
      },
    }),
    endpoint<unknown, { name: string }, QuietRuleBody>({
      method: 'put',
      path: '/quiet-rules/{name}',
      summary: 'Makes or changes a quiet rule; supplied ones can be turned on and off',
      params: Joi.object({ name: name.required() }),
      body: ruleBody,
      async run({ params, body, access }): Promise<QuietRuleBody> {
        if (params.name !== body.name) throw new Refusal(400, 'Two names', 'The name in the address and in the body differ.');
        const known = (await quiet.rules()).find((rule) => rule.name === body.name);
        const rule = known?.supplied ? { ...known, on: body.on } : body;
        if (!LEARNED.has(rule.name)) readable(rule.q);
        await kept.saveQuietRule(rule, access);
        quiet.forget();
        return { name: rule.name, label: rule.label, why: rule.why, q: rule.q, on: rule.on };
      },
    }),
    endpoint<unknown, { name: string }>({
      method: 'delete',
      path: '/quiet-rules/{name}',
      summary: 'Takes a quiet rule of one’s own away',
      params: Joi.object({ name: name.required() }),
      async run({ params }): Promise<void> {
        if (!(await kept.removeQuietRule(params.name))) throw notFound(`A quiet rule “${params.name}” that could be taken away`);
        quiet.forget();
      },
    }),
    endpoint<{ what: Saved['what'] }>({
      method: 'get',
      path: '/saved',
      summary: 'Saved searches, or column sets of records or of strands',
      query: Joi.object({
        what: Joi.string()
          .valid(...WHATS)
          .required(),
      }),
      async run({ query }): Promise<Page<Saved>> {
        return { items: await kept.saved(query.what), next: null };
      },
    }),
    endpoint<unknown, unknown, SavedBody>({
      method: 'post',
      path: '/saved',
      summary: 'Saves a search or a column set',
      status: 201,
      body: savedBody,
      async run({ body, access }): Promise<Saved> {
        return kept.keep(body, access);
      },
    }),
    endpoint<unknown, { id: number }, SavedBody>({
      method: 'put',
      path: '/saved/{id}',
      summary: 'Renames or changes what was saved',
      params: numbered,
      body: savedBody,
      async run({ params, body }): Promise<Saved> {
        const { what } = await changeable(params.id);
        if (what !== body.what) throw new Refusal(400, 'Another kind of thing', `It is saved as ${what}.`);
        const changed = await kept.change(params.id, body);
        if (!changed) throw notFound('What was saved');
        return changed;
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/saved/{id}',
      summary: 'Forgets what was saved',
      params: numbered,
      async run({ params }): Promise<void> {
        await changeable(params.id);
        if (!(await kept.forget(params.id))) throw notFound('What was saved');
      },
    }),
  ];
}
