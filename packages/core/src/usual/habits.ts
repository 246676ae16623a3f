import type { Usual } from './index-of.ts';

/** Good legs from which on it is said what none of them has. */
export const MANY = 100;
/** With this share, by its lower end, something always is so. */
export const SURELY = 0.95;
/** Of the legs in which a component speaks, ends with so many are its usual last words. */
const USUAL_LAST = 0.05;
const MOST_OF_ALL = 0.95;

/** What is usual for a component, as places of sayings. */
interface Habit {
  /** Its usual last words. */
  last: readonly number[];
  /** What it always says, and nearly never twice; null where it is not known of it. */
  once: readonly number[] | null;
  /** What it always says, and nearly never twice for whatever reason; null where it is not known of it. */
  single: readonly number[] | null;
}
/** What is made of the usual for the look at each leg. */
export interface Habits {
  components: ReadonlyMap<string, Habit>;
  /** Components that speak in more than hardly any leg. */
  known: ReadonlySet<string>;
  /** Sayings whose numbers go together with others. */
  proportioned: ReadonlySet<number>;
}
const habits = new WeakMap<Usual, Habits>();

/** Worked out once for each usual. */
export function habitsOf(usual: Usual): Habits {
  const ready = habits.get(usual);
  if (ready) return ready;
  const { of } = usual;
  const components = new Map(
    of.components.map(({ component, legs }): [string, Habit] => {
      const own = of.sayings.flatMap((one, place) => (one.component === component ? [{ one, place }] : []));
      const always = own.filter(({ one }) => one.legs >= legs * MOST_OF_ALL);
      const once = legs >= MANY && always.length > 0 && always.every(({ one }) => one.twice <= one.legs * (1 - SURELY));
      return [
        component,
        {
          last: own.filter(({ one }) => one.last > 0 && one.last >= legs * USUAL_LAST).map(({ place }) => place),
          single: always.length > 1 && always.every(({ one }) => one.repeated !== undefined && one.repeated <= one.legs * (1 - SURELY)) ? always.map(({ place }) => place) : null, // prettier-ignore
          once: once ? always.map(({ place }) => place) : null,
        },
      ];
    }),
  );
  const made: Habits = {
    components,
    known: new Set(of.components.filter(({ legs }) => legs > of.legs * (1 - SURELY)).map(({ component }) => component)),
    proportioned: new Set(of.proportions.flatMap((one) => [one.saying, one.to.saying])),
  };
  habits.set(usual, made);
  return made;
}
