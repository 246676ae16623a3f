import Joi from 'joi';
import type { Page, RunbookInfo, StepResult } from '@fadenweg/api';
import { MOST_TIMES, MOST_VALUES, problemsOf, SUPPLIED_RUNBOOKS, type Runbook, type StepSum } from '@fadenweg/core/runbooks';
import { LONGEST_SEARCH } from '@fadenweg/core/search';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, list, microsOf, name, splitList, numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { RunbookRepository } from './runbooks.ts';
import type { StepRunner } from './run-step.ts';

const text = (most: number): Joi.StringSchema => Joi.string().allow('').max(most);
const blank = Joi.object({
  name: name.required(),
  label: text(100).required(),
  kind: Joi.string().valid('text', 'choice').required(),
  values: Joi.alternatives(Joi.array().items(text(200).min(1)).max(100), Joi.object({ field: Joi.string().min(1).max(100).required() }))
    .allow(null)
    .required(),
  usual: text(200).required(),
});
const look = Joi.alternatives().conditional(Joi.object({ what: 'records' }).unknown(), {
  then: Joi.object({ what: Joi.string().valid('records').required(), q: text(LONGEST_SEARCH).required(), by: text(100).required() }),
  otherwise: Joi.alternatives().conditional(Joi.object({ what: 'strands' }).unknown(), {
    then: Joi.object({
      what: Joi.string().valid('strands').required(),
      identifier: text(200).required(),
      flow: text(200).required(),
      outcome: text(200).required(),
      failedIn: text(200).required(),
      component: text(200).required(),
      by: Joi.string().valid('none', 'finding', 'failedIn', 'flow', 'party', 'caused-by').required(),
      among: text(40).required(),
    }),
    otherwise: Joi.object({ what: Joi.string().valid('changes').required(), component: text(200).required() }),
  }),
});
const step = Joi.object({
  name: name.required(),
  title: text(200).required(),
  look: look.required(),
  around: Joi.object({
    step: name.required(),
    at: Joi.string().valid('first', 'each').required(),
    before: text(20).required(),
    after: text(20).required(),
  })
    .allow(null)
    .required(),
  found: text(1000).required(),
  nothing: text(1000).required(),
});
const runbook = Joi.object({
  name: name.required(),
  title: text(200).min(1).required(),
  about: text(1000).required(),
  blanks: Joi.array().items(blank).max(12).required(),
  steps: Joi.array().items(step).min(1).max(30).required(),
  finding: Joi.array()
    .items(
      Joi.object({
        when: text(40).required(),
        has: Joi.string().valid('found', 'nothing').required(),
        text: text(1000).required(),
      }),
    )
    .max(40)
    .required(),
});
const counted = Joi.array().items(Joi.object({ value: text(2000).required(), count: Joi.number().required() })).max(MOST_VALUES); // prettier-ignore
const sum = Joi.object({
  count: Joi.number().min(0).required(),
  partial: Joi.boolean().required(),
  first: instant.allow(null).required(),
  last: instant.allow(null).required(),
  times: Joi.array().items(instant).max(MOST_TIMES).required(),
  values: counted.required(),
  strands: Joi.array().items(Joi.string().max(400)).max(MOST_VALUES).required(),
  sentences: counted.required(),
});

interface RunBody {
  runbook: Runbook;
  step: string;
  blanks: Record<string, string>;
  from: string;
  to: string;
  environment?: string;
  earlier: Record<string, StepSum>;
}

/** Searches in order, with blanks: kept, and run step by step. */
export function runbookRoutes(runbooks: RunbookRepository, runner: StepRunner): AnyEndpoint[] {
  const inOrder = (body: Runbook): Runbook => {
    const [problem, ...more] = problemsOf(body);
    if (problem)
      throw new Refusal(
        400,
        'The runbook is not in order',
        `${problem.at}: ${problem.problem}${more.length > 0 ? `; and ${more.length} more` : ''}.`,
        'Mend it there; nothing was changed.',
      );
    return body;
  };
  return [
    endpoint({
      method: 'get',
      path: '/runbooks',
      summary: 'Runbooks: those that come with the application, and one’s own',
      async run(): Promise<Page<RunbookInfo<Runbook>>> {
        const supplied = SUPPLIED_RUNBOOKS.map((one) => ({
          id: `supplied-${one.name}`,
          supplied: true,
          owner: 'supplied',
          changedAt: null,
          runbook: one,
        }));
        return { items: [...supplied, ...(await runbooks.all())], next: null };
      },
    }),
    endpoint<unknown, unknown, Runbook>({
      method: 'post',
      path: '/runbooks',
      summary: 'Keeps a runbook of one’s own',
      status: 201,
      body: runbook,
      async run({ body, access }): Promise<RunbookInfo<Runbook>> {
        return runbooks.add(inOrder(body), access);
      },
    }),
    endpoint<unknown, { id: number }, Runbook>({
      method: 'put',
      path: '/runbooks/{id}',
      summary: 'Changes a runbook of one’s own',
      params: numbered,
      body: runbook,
      async run({ params, body }): Promise<RunbookInfo<Runbook>> {
        const changed = await runbooks.change(params.id, inOrder(body));
        if (!changed) throw notFound('This runbook');
        return changed;
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/runbooks/{id}',
      summary: 'Forgets a runbook of one’s own',
      params: numbered,
      async run({ params }): Promise<void> {
        if (!(await runbooks.remove(params.id))) throw notFound('This runbook');
      },
    }),
    endpoint<unknown, unknown, RunBody>({
      method: 'post',
      path: '/runbooks/run',
      summary: 'Runs one step of a runbook, given what the steps before it came to',
      body: Joi.object({
        runbook: runbook.required(),
        step: name.required(),
        blanks: Joi.object().pattern(name, text(1000)).max(12).required(),
        from: instant.required(),
        to: instant.required(),
        environment: list,
        earlier: Joi.object().pattern(name, sum).max(30).required(),
      }),
      async run({ body }): Promise<StepResult<StepSum>> {
        const wanted = inOrder(body.runbook).steps.find((one) => one.name === body.step);
        if (!wanted) throw notFound(`A step “${body.step}” of this runbook`);
        return runner.run(wanted, {
          blanks: body.blanks,
          window: { from: microsOf(body.from), to: microsOf(body.to) },
          environment: splitList(body.environment),
          earlier: body.earlier,
        });
      },
    }),
  ];
}
