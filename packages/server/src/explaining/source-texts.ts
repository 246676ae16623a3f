import type { SourceText, TextLines, TextPlace, Written, WrittenPlaces } from '@fadenweg/api';
import { fileOfFrame, fileOfLogger, lineOfMessage } from '@fadenweg/core/source-text';
import { microsOf } from '../platform/http/inputs.ts';
import { notFound } from '../platform/http/problems.ts';
import type { SourceTextRepository } from './source-text-rows.ts';
import type { Changes } from '../changes/changes.ts';

/** Where in registered source texts stands what a record comes from. */
export class SourceTexts {
  constructor(
    private readonly rows: SourceTextRepository,
    private readonly changes: Changes,
  ) {}

  /** The places of a record's calls and of the line that wrote it, in the version that ran when it was written. */
  async places({ component, host, environment, at, logger, message, frames }: Written): Promise<WrittenPlaces> {
    const registered = await this.rows.of(component);
    if (registered.length === 0) return { text: null, sure: false, ran: null, frames: frames.map(() => null), message: null };
    const { text, ran } = choose(registered, await this.ran(component, host, environment, microsOf(at)));
    const paths = await this.rows.paths(text.id);
    return {
      text: { id: text.id, version: text.version },
      sure: ran === text.version,
      ran,
      frames: frames.map((frame): TextPlace | null => {
        const path = fileOfFrame(frame, paths);
        return path === null ? null : { path, line: frame.line };
      }),
      message: await this.writes(text.id, fileOfLogger(logger, paths), message),
    };
  }

  /** @param to included; at most the last line is told @throws where there is no such file */
  async lines(id: number, path: string, from: number, to: number): Promise<TextLines> {
    const body = await this.rows.body(id, path);
    if (body === null) throw notFound(`The source text “${path}”`);
    const lines = body.replace(/\r?\n$/, '').split(/\r?\n/);
    return { path, from, lines: lines.slice(from - 1, to), total: lines.length };
  }

  private async writes(id: number, path: string | null, message: string): Promise<TextPlace | null> {
    if (path === null) return null;
    const body = await this.rows.body(id, path);
    return { path, line: body === null ? null : lineOfMessage(body, message) };
  }

  /** The version of a component that was last known at an instant: on the host before that of any other. */
  private async ran(component: string, host: string, environment: string, at: number): Promise<string | null> {
    const states = await this.changes.states(at, environment === '' ? undefined : [environment]);
    const known = states.filter((one) => one.component === component && one.subject === 'version');
    return (known.find((one) => one.host === host) ?? known.sort((a, b) => b.since.localeCompare(a.since))[0])?.value ?? null;
  }
}

/** What ran, where it is registered; else the latest that is. */
function choose(registered: readonly SourceText[], ran: string | null): { text: SourceText; ran: string | null } {
  return { text: registered.find((one) => one.version === ran) ?? registered[0]!, ran };
}
