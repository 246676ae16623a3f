import type { AgainstWhat } from '@fadenweg/api';
import type { VersionSpan } from '@fadenweg/core/changes';
import type { Changes } from '../changes/changes.ts';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { Thing } from '../rollups/against-rows.ts';

/** What a page asks to be compared, in names. */
export interface NamedThing {
  what: AgainstWhat;
  name: string;
  /** A party's kind of identifier, a version's component; else ''. */
  of: string;
}

/** From names to the keys by which strands know them. */
export class Things {
  constructor(
    private readonly names: Names,
    private readonly identifiers: IdentifierRepository,
    private readonly declarations: DeclarationRepository,
    private readonly changes: Changes,
  ) {}

  /** @throws {@link Refusal} where there is no such thing */
  async of({ what, name, of }: NamedThing, environment: string[]): Promise<Thing> {
    if (what === 'party') return { what, id: await this.party(name, of) };
    if (what === 'host') return { what, id: this.names.knownHost(name) ?? nothing('host', name) };
    if (what === 'component') return { what, id: this.names.knownComponent(name) ?? nothing('component', name) };
    const spans = (await this.versions(of, environment)).filter((one) => one.version === name);
    if (spans.length === 0) nothing(`version of ${of}`, name);
    return { what, id: this.names.knownComponent(of) ?? nothing('component', of), spans: this.byHost(spans) };
  }

  /** When which version of a component was in force. */
  versions = (component: string, environment: string[]): Promise<VersionSpan[]> => this.changes.versions(component, environment);

  /** Where the host is not known to have a part in strands, it is not asked for. */
  byHost = (spans: readonly VersionSpan[]): { host: number | null; from: number; to: number }[] =>
    spans.map(({ host, from, to }) => ({ host: host === '' ? null : (this.names.knownHost(host) ?? null), from, to }));

  private async party(value: string, of: string): Promise<number> {
    const kind = (await this.declarations.kinds()).find((one) => one.name === of || one.label === of);
    const key = kind ? this.identifiers.keyOf(kind, value) : undefined;
    const known = key === undefined ? undefined : (await this.identifiers.named([key])).get(key);
    return known?.role === 'shared' ? known.key : nothing(of === '' ? 'party' : of, value);
  }
}

function nothing(what: string, name: string): never {
  throw new Refusal(
    404,
    'Not known',
    `There is no ${what} “${name}” in what was read.`,
    'Go back to where the name stands, or search for it in Find.',
  );
}
