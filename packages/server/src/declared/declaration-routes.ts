import { isDeepStrictEqual } from 'node:util';
import Joi from 'joi';
import type { Flow, FlowDeclaration, FlowUsual, IdentifierKind, Meaning, Page, ReadAgain, MeaningsSaved } from '@fadenweg/api';
import { scheduleProblem, type DeclaredSchedule } from '@fadenweg/core/jobs';
import { patternProblem } from '@fadenweg/core/patterns';
import { FEWEST_LEGS } from '@fadenweg/core/usual';
import type { Access } from '../platform/access.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { name } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import { holdsIn, type DeclarationRepository } from './declarations.ts';
import type { Reread } from '../evidence/reread.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';
import { usualInWords } from './usual-in-words.ts';
import type { Weaving } from '../weaving/weaving.ts';

const kindBody = Joi.object({
  name: name.required(),
  label: Joi.string().trim().min(1).max(60).required(),
  role: Joi.string().valid('business', 'link', 'shared').required(),
  patterns: Joi.array().items(Joi.string().max(300)).max(20).default([]),
  inText: Joi.array().items(Joi.string().max(300)).max(20),
  fields: Joi.array().items(Joi.string().max(100)).max(50).default([]),
  normal: Joi.object({
    case: Joi.string().valid('keep', 'lower', 'upper').default('keep'),
    separators: Joi.string().valid('keep', 'drop').default('keep'),
    leadingZeros: Joi.string().valid('keep', 'drop').default('keep'),
    phone: Joi.boolean().default(false),
  }).default({ case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false }),
  scope: Joi.string().valid('global', 'host', 'process', 'session').default('global'),
  leaseMs: Joi.number().integer().min(1).max(31_536_000_000).allow(null).default(null),
  supplied: Joi.boolean().strip(),
  // whoever saves it stands for it from now on
  discovered: Joi.any().strip(),
  environments: Joi.any().strip(),
  guarded: Joi.any().strip(),
  trusted: Joi.any().strip(),
  once: Joi.boolean(),
});
const flowBody = Joi.object({
  name: name.required(),
  label: Joi.string().trim().min(1).max(60).required(),
  kind: name.required(),
  prefix: Joi.string().allow('').max(40).default(''),
  patienceMs: Joi.number().integer().min(1000).max(31_536_000_000).allow(null).default(null),
  expects: Joi.array()
    .items(
      Joi.object({
        field: Joi.string().max(60).required(),
        words: Joi.string().min(1).max(60).required(),
        min: Joi.number().min(0).required(),
        max: Joi.number().min(0).allow(null).default(null),
      }),
    )
    .max(10)
    .default([]),
  must: Joi.array()
    .items(
      Joi.object({
        component: Joi.string().trim().min(1).max(60).allow(null).default(null),
        words: Joi.string().trim().min(3).max(200).required(),
        withinMs: Joi.number().integer().min(1).max(31_536_000_000).allow(null).default(null),
      }),
    )
    .max(20)
    .default([]),
  path: Joi.array().items(Joi.string().trim().min(1).max(60)).max(100).unique().default([]),
  longestMs: Joi.number().integer().min(1).max(31_536_000_000).allow(null).default(null),
  schedule: Joi.object({
    cron: Joi.string().trim().min(9).max(200).required(),
    zone: Joi.string().trim().min(1).max(60).required(),
    lateMs: Joi.number().integer().min(1000).max(86_400_000).allow(null).default(null),
  })
    .allow(null)
    .default(null)
    .custom((schedule: DeclaredSchedule | null) => {
      const problem = schedule === null ? null : scheduleProblem(schedule);
      if (problem !== null) throw new Error(problem);
      return schedule;
    })
    .messages({ 'any.custom': 'The schedule cannot be used: {{#error.message}}' }),
});
const meaningsBody = Joi.object({
  items: Joi.array()
    .max(500)
    .required()
    .items(
      Joi.object({
        component: Joi.string().max(60).allow(null).default(null),
        contains: Joi.string().min(3).max(200).required(),
        means: Joi.string().valid('done', 'ends', 'failed', 'refused', 'entry', 'harmless').required(),
      }),
    ),
});
const byName = Joi.object({ name: name.required() });

export interface DeclarationParts {
  declarations: DeclarationRepository;
  sources: SourceRepository;
  strands: StrandRepository;
  reread: () => Reread;
  weaving: Weaving;
}

/** What is found, and how it ties, is as before: only its label changed, or somebody stands for what was discovered. */
function findsTheSame(one: IdentifierKind, other: IdentifierKind): boolean {
  const parts = ({ role, patterns, inText, fields, normal, scope, leaseMs }: IdentifierKind): string => JSON.stringify([role, patterns, inText ?? [], fields, normal, scope, leaseMs]); // prettier-ignore
  return parts(one) === parts(other);
}

/** Strands are judged the same: only its name or when its runs begin changed. */
function judgedAlike(one: FlowDeclaration, other: FlowDeclaration): boolean {
  const rules = ({ kind, prefix, patienceMs, expects, must = [], path = [], longestMs = null }: FlowDeclaration) => ({ kind, prefix, patienceMs, expects, must, path, longestMs }); // prettier-ignore
  return isDeepStrictEqual(rules(one), rules(other));
}

/** Only how long a value is lent to one strand changed: the same stands in records, and ties for longer or shorter. */
const onlyLeased = (one: IdentifierKind, other: IdentifierKind): boolean =>
  one.leaseMs !== null && other.leaseMs !== null && findsTheSame({ ...one, leaseMs: other.leaseMs }, other);
const isFoundBy = (one: IdentifierKind, other: IdentifierKind): boolean =>
  JSON.stringify([one.patterns, one.inText ?? [], one.fields]) === JSON.stringify([other.patterns, other.inText ?? [], other.fields]);
/** With more changed meanings it is not looked up where they are said: everything is read again. */
const MOST_LOOKED_FOR = 20;
function onlyIn(some: readonly Meaning[], others: readonly Meaning[]): Meaning[] {
  const keys = new Set(others.map(keyOf));
  return some.filter((one) => !keys.has(keyOf(one)));
}
const keyOf = ({ component, contains, means }: Meaning): string => JSON.stringify([component, contains, means]);

/** What is declared about the data. A change of kinds or meanings reads the sources again from their kept bytes, in the background. */
export function declarationRoutes({ declarations, sources, strands, reread, weaving }: DeclarationParts): AnyEndpoint[] {
  /**
   * Reads again what a declaration concerns.
   *
   * @param before sources that were being read, or about to be, before it was declared: for what they were read does not show in their records yet
   * @param touched of the others only these; all where it is left out
   * @param declared identifiers are declared that were none before
   */
  const readAgain = async (before: readonly number[], touched?: readonly number[], declared = false): Promise<ReadAgain> => {
    const concerned = new Set([...before, ...(touched ?? [])]);
    const ids = (await sources.sources())
      .filter(({ id, state }) => state === 'reading' || (['done', 'waiting'].includes(state) && (touched === undefined || concerned.has(id))))
      .map((source) => source.id);
    if (declared && ids.length > 0) await reread().declared();
    if (ids.length > 0) await reread().readAgain(ids);
    else await weaving.ask(true, true, 'what is declared has changed');
    return { sourcesReadAgain: ids.length };
  };
  const save = async (kind: IdentifierKind, access: Access) => {
    for (const pattern of [...kind.patterns, ...(kind.inText ?? [])]) {
      const problem = patternProblem(pattern);
      if (problem)
        throw new Refusal(
          400,
          'The pattern cannot be used',
          `“${pattern}”: ${problem}.`,
          'Write what the identifier looks like, for example AB-\\d{6}.',
        );
    }
    if (kind.patterns.length === 0 && kind.fields.length === 0)
      throw new Refusal(400, 'Nothing to find it by', 'An identifier kind needs a pattern or the name of a field.');
    const before = (await declarations.kinds()).find((one) => one.name === kind.name);
    // a link that the guard had taken the tie from, and somebody lets tie again, is not taken it from again
    const trusted = kind.role === 'link' && (before?.trusted === true || !!before?.guarded);
    const underWay = await sources.underWay();
    await declarations.saveKind(trusted ? { ...kind, trusted } : kind, access);
    // what it is found by is looked for everywhere; what becomes of it concerns only where it was found
    if (!before || !isFoundBy(before, kind)) return { ...kind, ...(await readAgain(underWay, undefined, true)) };
    // what was discovered in one environment holds everywhere from now on: it is looked for where it was not
    if (before.environments) {
      const all = await sources.sources();
      const lacking = all.filter(({ environment }) => !holdsIn(before, environment)).map(({ id }) => id);
      const touched = findsTheSame(before, kind) ? lacking : [...lacking, ...(await sources.withKinds([before.id]))];
      if (touched.length + underWay.length > 0) return { ...kind, ...(await readAgain(underWay, touched)) };
    }
    if (before.leaseMs !== kind.leaseMs && onlyLeased(before, kind)) {
      await weaving.ask(true, true, 'a lease has changed');
      return { ...kind, sourcesReadAgain: 0 };
    }
    if (!findsTheSame(before, kind)) return { ...kind, ...(await readAgain(underWay, await sources.withKinds([before.id]))) };
    // which strands are doubled is judged anew, from what is read
    if (before.once !== kind.once) await weaving.ask(true, false, 'what belongs to one strand only has changed');
    return { ...kind, sourcesReadAgain: 0 };
  };
  return [
    endpoint({
      method: 'get',
      path: '/identifier-kinds',
      summary: 'The kinds of identifiers that are found',
      async run(): Promise<Page<IdentifierKind>> {
        return { items: (await declarations.kinds()).map(({ id: _id, ...kind }) => kind), next: null };
      },
    }),
    endpoint<unknown, unknown, IdentifierKind>({
      method: 'post',
      path: '/identifier-kinds',
      summary: 'Declares a kind of identifier',
      status: 201,
      body: kindBody,
      async run({ body, access }): Promise<IdentifierKind & ReadAgain> {
        if ((await declarations.kinds()).some((kind) => kind.name === body.name))
          throw new Refusal(409, 'Declared already', `There is a kind “${body.name}” already.`, 'Change it instead, or choose another name.');
        return save(body, access);
      },
    }),
    endpoint<unknown, { name: string }, IdentifierKind>({
      method: 'put',
      path: '/identifier-kinds/{name}',
      summary: 'Changes a kind of identifier',
      params: byName,
      body: kindBody,
      status: 202,
      async run({ params, body, access }): Promise<IdentifierKind & ReadAgain> {
        if (params.name !== body.name) throw new Refusal(400, 'Two names', 'The name in the address and in the body differ.');
        if (!(await declarations.kinds()).some((kind) => kind.name === body.name)) throw notFound(`The kind “${body.name}”`);
        return save(body, access);
      },
    }),
    endpoint<unknown, { name: string }>({
      method: 'delete',
      path: '/identifier-kinds/{name}',
      summary: 'Takes a kind of identifier away',
      params: byName,
      status: 202,
      async run({ params, access }): Promise<ReadAgain> {
        const kind = (await declarations.kinds()).find((one) => one.name === params.name);
        const underWay = await sources.underWay();
        if (!kind || !(await declarations.retireKind(params.name, access))) throw notFound(`The kind “${params.name}”`);
        const touched = await sources.withKinds([kind.id]);
        return touched.length + underWay.length > 0 ? readAgain(underWay, touched) : { sourcesReadAgain: 0 };
      },
    }),
    endpoint({
      method: 'get',
      path: '/flows',
      summary: 'Flows with their usual duration',
      async run(): Promise<Page<Flow>> {
        const counts = await strands.counts({});
        return {
          items: (await declarations.flows()).map(({ usualUs, usual, ...flow }) => ({
            ...flow,
            legs: usual?.of.legs ?? 0,
            usualMs: usualUs === null ? null : usualUs / 1000,
            strands: counts.filter((one) => one.flow === flow.name).reduce((sum, one) => sum + Number(one.count), 0),
          })),
          next: null,
        };
      },
    }),
    endpoint<unknown, { name: string }>({
      method: 'get',
      path: '/flows/{name}/usual',
      summary: 'What is usual for a flow, learned from what went well',
      params: byName,
      async run({ params }): Promise<FlowUsual> {
        const flow = (await declarations.flows()).find((one) => one.name === params.name);
        if (!flow) throw notFound(`The flow “${params.name}”`);
        if (!flow.usual)
          throw new Refusal(404, 'Nothing usual yet', `What is usual for ${flow.label} is known from ${FEWEST_LEGS} strands on that went well.`);
        return usualInWords(flow.usual.of, flow.label);
      },
    }),
    endpoint<unknown, { name: string }, FlowDeclaration>({
      method: 'put',
      path: '/flows/{name}',
      summary: 'Declares or changes a flow',
      params: byName,
      body: flowBody,
      async run({ params, body, access }): Promise<FlowDeclaration> {
        if (params.name !== body.name) throw new Refusal(400, 'Two names', 'The name in the address and in the body differ.');
        const before = (await declarations.flows()).find((flow) => flow.name === body.name);
        await declarations.saveFlow(body, access);
        if (before && judgedAlike(before, body)) return body;
        // what is yet to come is judged by it anyway
        if (before || (await strands.anyOfKind(body.kind))) await weaving.ask(true, false, 'a flow has changed');
        return body;
      },
    }),
    endpoint<unknown, { name: string }>({
      method: 'delete',
      path: '/flows/{name}',
      summary: 'Takes a declared flow away',
      params: byName,
      async run({ params, access }): Promise<void> {
        if (!(await declarations.removeFlow(params.name, access))) throw notFound(`The flow “${params.name}”`);
        await weaving.ask(true, false, 'a flow was taken away');
      },
    }),
    endpoint({
      method: 'get',
      path: '/meanings',
      summary: 'What some messages mean for their strand',
      async run(): Promise<Page<Meaning>> {
        return { items: await declarations.meanings(), next: null };
      },
    }),
    endpoint<unknown, unknown, { items: Meaning[] }>({
      method: 'put',
      path: '/meanings',
      summary: 'Replaces all declared meanings',
      body: meaningsBody,
      status: 202,
      async run({ body, access }): Promise<MeaningsSaved> {
        const before = await declarations.meanings();
        const changed = [...onlyIn(body.items, before), ...onlyIn(before, body.items)];
        if (changed.length === 0) return { items: body.items, sourcesReadAgain: 0 };
        const underWay = await sources.underWay();
        const touched = changed.length > MOST_LOOKED_FOR ? undefined : await sources.saying(changed);
        await declarations.replaceMeanings(body.items, access);
        if (touched?.length === 0 && underWay.length === 0) return { items: body.items, sourcesReadAgain: 0 };
        return { items: body.items, ...(await readAgain(underWay, touched)) };
      },
    }),
  ];
}
