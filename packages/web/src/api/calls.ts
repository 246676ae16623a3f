import type { Answers, Asked } from '@fadenweg/api';

export type Method = 'get' | 'post' | 'put' | 'delete';
type Call = keyof Asked;
/** Paths of the calls of a method, as the API describes them: `/strands/{id}`. */
export type PathOf<M extends Method> = Call extends infer C ? (C extends `${M} ${infer P}` ? P : never) : never;

/** What stands in an address is text: words of a list come from the page's own address, and are checked by the server. */
type InAddress<V> = V extends string | number | boolean ? string | number | boolean : V;
/** Parameters of an address; what may be left out may also be null or empty. */
type Loose<Q> = { [K in keyof Q]: undefined extends Q[K] ? InAddress<Q[K]> | null | '' : InAddress<Q[K]> };
type InputOf<A> = { [K in keyof A as K extends 'multipart' ? 'body' : K]: K extends 'query' | 'params' ? Loose<NonNullable<A[K]>> : K extends 'multipart' ? FormData : A[K] }; // prettier-ignore
/** What is given for a call: its parts, and what ends it; nothing where it takes nothing. */
export type Given<C> = C extends Call
  ? Record<string, never> extends Asked[C]
    ? [input?: InputOf<Asked[C]>, signal?: AbortSignal]
    : [input: InputOf<Asked[C]>, signal?: AbortSignal]
  : never;
export type Answer<C> = C extends Call ? Answers[C] : never;

/** The parts of any call, whatever it takes. */
export interface Input {
  query?: object;
  params?: object;
  body?: unknown;
}
/** The address of a call: parameters in their places, and a query without what is undefined, null or empty. */
export function addressOf(path: string, { query = {}, params = {} }: Input = {}): string {
  const filled = path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String((params as Record<string, unknown>)[name])));
  const parameters = new URLSearchParams();
  for (const [name, value] of Object.entries(query as Record<string, unknown>))
    if (value !== undefined && value !== null && value !== '') parameters.set(name, String(value));
  const text = parameters.toString();
  return `/api${filled}${text === '' ? '' : `?${text}`}`;
}
/** The address of a call that is followed or fed from: a file, or events. */
export const hrefOf = <P extends PathOf<'get'>>(path: P, ...[input]: Given<`get ${P}`>): string => addressOf(path, input ?? {});
