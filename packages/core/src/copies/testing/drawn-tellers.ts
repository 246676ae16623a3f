import { coarsenessOf } from '../coarseness.ts';
import type { Stretch, Told } from '../types.ts';
import { wordsOf } from '../words.ts';

/** Programs by chance, and what two files tell of them. */
export type Story =
  'two files' | 'a part' | 'caller and called' | 'proxy and program' | 'two of a kind' | 'beating hearts' | 'other matters' | 'two steps';
export const COPIES: readonly Story[] = ['two files', 'a part'];
export const APART: readonly Story[] = ['caller and called', 'proxy and program', 'two of a kind', 'beating hearts', 'other matters', 'two steps'];

interface Event {
  at: number;
  message: string;
  fields: Record<string, string | number>;
}
interface Writing {
  coarse: number;
  component: string;
  host: string;
  /** Fields that this file has besides. */
  own: (place: number) => Record<string, string | number>;
  without: readonly string[];
}

/** Numbers from 0 to 1, the same for a seed (mulberry32). */
function numbersOf(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let value = Math.imul(state ^ (state >>> 15), 1 | state);
    value = (value + Math.imul(value ^ (value >>> 7), 61 | value)) ^ value;
    return ((value ^ (value >>> 14)) >>> 0) / 4294967296;
  };
}
const LETTERS = 'abcdefghijklmnoprstuvwz';

/** One of these sources, and the other one in the same time. */
export function drawnTellers(seed: number, story: Story): { of: Stretch; among: Stretch } {
  const next = numbersOf(seed);
  const whole = (most: number): number => Math.floor(next() * most);
  const one = <Item>(of: readonly Item[]): Item => of[whole(of.length)]!;
  const word = (): string => Array.from({ length: 3 + whole(7) }, () => LETTERS[whole(LETTERS.length)]).join('');
  const words = (): string => Array.from({ length: 2 + whole(6) }, word).join(' ');
  const id = (): string => one([() => String(100_000 + whole(900_000)), () => word() + whole(10_000), () => whole(2 ** 31).toString(16)])();
  const kinds = Array.from({ length: 3 + whole(12) }, () => ({ before: words(), behind: words(), field: word() }));
  const count = 60 + whole(80);
  const gap = one([20_000, 300_000, 2_000_000]);
  const start = 1_790_000_000_000_000 + whole(86_400) * 1_000_000;
  let at = start;
  const draw = (): Event => {
    const kind = one(kinds);
    at += Math.ceil(next() * 2 * gap);
    return { at, message: `${kind.before} ${id()} ${kind.behind} ${id()}`, fields: { [kind.field]: whole(1000), thread: `worker-${whole(8)}` } };
  };
  const events = Array.from({ length: count }, draw);
  const writing = (): Writing => ({
    coarse: one([1, 1000, 1_000_000]),
    component: 'pressroom',
    host: '',
    own: one<Writing['own']>([() => ({}), (place) => ({ sequence: 4000 + place }), () => ({ pid: 417, unit: 'pressroom' })]),
    without: [],
  });
  const tell = (told: readonly Event[], { coarse, component, host, own, without }: Writing, late: () => number = () => 0): Stretch => {
    const all = told.map((event, place): Told => {
      const fields = Object.fromEntries(Object.entries({ ...event.fields, ...own(place) }).filter(([name]) => !without.includes(name)));
      return {
        at: Math.floor((event.at + late()) / coarse) * coarse,
        words: wordsOf([event.message, ...Object.values(fields).map(String)]),
        said: wordsOf([event.message]),
        fields,
        host,
        component,
        named: false,
      };
    });
    all.sort((a, b) => a.at - b.at);
    return { told: all, coarse: coarsenessOf(all.map((event) => event.at)) };
  };
  const soon = (): number => whole(900);
  const [mine, theirs] = [writing(), { ...writing(), own: () => ({}), without: one([[], ['thread']]) }];
  const elsewhere = { ...theirs, component: 'gatehouse' };
  switch (story) {
    case 'two files':
      // one may have been opened a little later
      return { of: tell(events, mine), among: tell(events.slice(whole(2)), theirs, soon) };
    case 'a part':
      return { of: tell(events.filter((_, i) => i % 3 !== 0), mine), among: tell(events, theirs, soon) }; // prettier-ignore
    case 'caller and called':
      // the same number, told in words of one's own
      return {
        of: tell(events, mine),
        among: tell(events.map((event) => ({ ...event, at: event.at + 1000 + whole(20_000), message: `${words()} ${event.message.split(' ').find((part) => /\d/.test(part)) ?? ''} ${words()}` })), elsewhere),
      }; // prettier-ignore
    case 'proxy and program': {
      const [path, agent] = [word(), word()];
      const asked = events.map((event) => ({
        ...event,
        message: `GET /${path}/${id()} HTTP/1.1 ${one([200, 200, 404])} ${whole(5000)}`,
        fields: {} as Event['fields'],
      }));
      const before = asked.map((event) => ({
        ...event,
        at: event.at + 500 + whole(30_000),
        fields: { client: `198.51.100.${whole(250)}`, agent: `${agent}/${whole(9)}` },
      }));
      return { of: tell(asked, { ...mine, own: () => ({ client: '127.0.0.1' }) }), among: tell(before, { ...theirs, component: one(['gatehouse', 'pressroom']) }) }; // prettier-ignore
    }
    case 'two of a kind':
      return {
        of: tell(events, mine),
        among: tell(
          events.map(({ at: moment }) => ({ ...draw(), at: moment + whole(2000) })),
          theirs,
        ),
      }; // prettier-ignore
    case 'beating hearts': {
      const beats = events.map((_, i): Event => ({
        at: start + i * 5_000_000 + whole(300),
        message: one([kinds[0]!, kinds[1]!]).before,
        fields: { queue: 0 },
      }));
      return { of: tell(beats, mine), among: tell(beats, theirs, soon) };
    }
    case 'two steps': {
      // one program writes what it begins to one file, and what it ends to another one
      const steps = (verb: string): Event[] => events.map((event) => ({ ...event, message: event.message.replace(/^\S+/, verb) }));
      return { of: tell(steps('takes'), mine), among: tell(steps('gives'), theirs, soon) };
    }
    case 'other matters':
      return { of: tell(events, mine), among: tell(Array.from({ length: count }, draw).map((event, i) => ({ ...event, at: events[i]!.at })), theirs) }; // prettier-ignore
  }
}
