import { fitting, parameterReader } from '@fadenweg/core/shapes';
import type { Database } from '../database/connect.ts';

export interface NamedParameter {
  component: string;
  /** Of the shape, or of those that were made one. */
  text: string;
  /** Of its ‹›, from 0. */
  place: number;
  name: string;
}
/** Parameters of shapes under the names that people gave them, as fields of records. */
export interface ParameterFields {
  /** By name. */
  named: ReadonlyMap<string, readonly NamedParameter[]>;
  /** Of a record; null where it has none. */
  of(component: string, shape: string, message: string): Record<string, string> | null;
}
const MOST_SHAPES = 20_000;

/** Names that people gave to parameters, kept ready. */
export class Parameters {
  private active: Promise<ParameterFields> | null = null;
  constructor(private readonly db: Database) {}

  /** One was named: they are read again on the next call. */
  forget(): void {
    this.active = null;
  }
  all(): Promise<NamedParameter[]> {
    return this.db('shape_parameter').orderBy(['component', 'text', 'place']).select('component', 'text', 'place', 'name');
  }
  async name({ component, text, place, name }: NamedParameter, who: string): Promise<void> {
    const own = { component, text, place };
    if (name === '') await this.db('shape_parameter').where(own).delete();
    else
      await this.db('shape_parameter')
        .insert({ ...own, name, who })
        .onConflict(['component', 'text', 'place'])
        .merge({ name, who, said_at: this.db.fn.now() });
    this.forget();
  }
  on(): Promise<ParameterFields> {
    if (!this.active) {
      this.active = this.all().then(compiled);
      this.active.catch(() => this.forget());
    }
    return this.active;
  }
}

function compiled(all: readonly NamedParameter[]): ParameterFields {
  const named = new Map<string, NamedParameter[]>();
  for (const one of all) named.set(one.name, [...(named.get(one.name) ?? []), one]);
  const texts = [...new Map(all.map((one) => [`${one.component}\0${one.text}`, one])).values()].map(({ component, text }) => ({
    component,
    fits: fitting(text),
    read: parameterReader(text),
    own: all.filter((one) => one.component === component && one.text === text),
  }));
  /** By component and shape: those that it fits. */
  const known = new Map<string, typeof texts>();
  return {
    named,
    of(component, shape, message) {
      const key = `${component}\0${shape}`;
      let fitted = known.get(key);
      if (!fitted) {
        fitted = texts.filter((one) => one.component === component && one.fits(shape));
        if (known.size < MOST_SHAPES) known.set(key, fitted);
      }
      let fields: Record<string, string> | null = null;
      for (const { read, own } of fitted) {
        const values = read(message);
        if (values) for (const { place, name } of own) if (values[place] !== undefined) (fields ??= {})[name] = values[place];
      }
      return fields;
    },
  };
}
