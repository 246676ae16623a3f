import Joi from 'joi';
import type { DifferentShapes, ShapeBaseline, ShapeDetail, ShapeHandBody, ShapeParameterBody, ShapeSaidBody } from '@fadenweg/api';
import { isOwn } from '@fadenweg/core/search';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, microsOf } from '../platform/http/inputs.ts';
import { Refusal } from '../platform/http/problems.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import type { Parameters } from '../kept/parameters.ts';
import type { OneShape } from './one-shape.ts';
import type { ShapeHands } from './shape-hands.ts';
import type { ShapesAsked, ShapeService } from './shapes.ts';

const MINUTES = 600_000_000;
const YEAR = 366 * 86_400_000_000;
const component = Joi.string().max(200).allow('').required();
const text = Joi.string().max(2000).allow('').required();
interface Query extends WindowQuery {
  baseline: ShapeBaseline;
  otherFrom?: string;
  otherTo?: string;
  otherEnvironment?: string;
  host?: string;
  all: boolean;
}

export function shapeRoutes(shapes: ShapeService, one: OneShape, hands: ShapeHands, parameters: Parameters): AnyEndpoint[] {
  return [
    endpoint<Query>({
      method: 'get',
      path: '/shapes/different',
      summary:
        'Shapes that are said otherwise in a window than before it, in another window, another environment or on other hosts: new, surging, fading, gone, each with how often usually and how likely by chance; near twins are one',
      query: Joi.object({
        ...windowInput,
        baseline: Joi.string().valid('before', 'days', 'window', 'environment', 'host').default('before'),
        otherFrom: instant.when('baseline', { is: 'window', then: Joi.required() }),
        otherTo: instant.when('baseline', { is: 'window', then: Joi.required() }),
        otherEnvironment: Joi.string().max(100).when('baseline', { is: 'environment', then: Joi.required() }),
        host: Joi.string().max(200).when('baseline', { is: 'host', then: Joi.required() }),
        all: Joi.boolean().default(false),
      }),
      run: ({ query }): Promise<DifferentShapes> => shapes.different(askedOf(query)),
    }),
    endpoint<WindowQuery & { component: string; text: string }>({
      method: 'get',
      path: '/shapes/one',
      summary:
        'A shape in a window and as long before it: how often, what was made one in it, its parameters with their values, whose strands pass it',
      query: Joi.object({ ...windowInput, component, text }),
      run: ({ query }): Promise<ShapeDetail> => one.of({ ...windowOf(query, YEAR), component: query.component, text: query.text }),
    }),
    endpoint<unknown, unknown, ShapeHandBody>({
      method: 'put',
      path: '/shapes/hand',
      summary: 'Says that what fits a text with ‹› in it is one shape, or that it stands apart; null takes it back',
      body: Joi.object({ component, text, is: Joi.string().valid('one', 'apart').allow(null).required() }),
      async run({ body, access }): Promise<void> {
        if (body.is !== null && !body.text.includes('‹›'))
          throw new Refusal(400, 'Nothing varies in it', 'A text without ‹› stands for itself alone.', 'Put ‹› where a word is a parameter.');
        await hands.correct(body.component, body.text, body.is, access.who);
      },
    }),
    endpoint<unknown, unknown, ShapeParameterBody>({
      method: 'put',
      path: '/shapes/parameters',
      summary: 'Gives a parameter of a shape a name, under which it is a field of searches; an empty name takes it away',
      body: Joi.object({
        component,
        text,
        place: Joi.number().integer().min(0).max(200).required(),
        name: Joi.string()
          .pattern(/^[\p{L}_][\p{L}\d_.-]{0,59}$/u)
          .allow('')
          .required()
          .messages({ 'string.pattern.base': 'a name is made of letters, digits, dots, hyphens and underscores, and begins with a letter' }),
      }),
      async run({ body, access }): Promise<void> {
        if (isOwn(body.name)) throw new Refusal(409, 'The name is taken', `Every record has “${body.name}” already.`, 'Choose another name.');
        await parameters.name(body, access.who);
      },
    }),
    endpoint<unknown, unknown, ShapeSaidBody>({
      method: 'put',
      path: '/shapes/said',
      summary: 'Says why it is tolerated that a shape is new, surging, fading or gone: it is left out until it is something else; null takes it back',
      body: Joi.object({
        component,
        text,
        kind: Joi.string().valid('new', 'surging', 'fading', 'gone').required(),
        note: Joi.string().trim().min(1).max(2000).allow(null).required(),
      }),
      run: ({ body, access }): Promise<void> => hands.tolerate(body, body.note, access.who),
    }),
  ];
}

function askedOf({ baseline, otherFrom, otherTo, otherEnvironment = '', host = '', all, ...query }: Query): ShapesAsked {
  const window = windowOf(query, YEAR);
  if (window.to - window.from < MINUTES)
    throw new Refusal(400, 'The window is too short', 'What is said is counted by ten minutes.', 'Choose a window of ten minutes at least.');
  const other = otherFrom && otherTo ? { from: microsOf(otherFrom), to: microsOf(otherTo) } : null;
  if (other && other.to - other.from < window.to - window.from)
    throw new Refusal(400, 'The other window is too short', 'It has to be as long as the window at least.', 'Choose a longer one to compare with.');
  return { ...window, baseline, other, otherEnvironment, host, all };
}
