import type { OverJoining } from '@fadenweg/core/stitching';
import { Access } from '../platform/access.ts';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { SourceRepository } from '../evidence/sources.ts';

/** Takes the tie from links that would join many transactions into one: they become shared, with what speaks for it, until somebody lets them tie again. */
export class RoleGuard {
  constructor(
    private readonly declarations: DeclarationRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly sources: SourceRepository,
  ) {}

  /**
   * @param joining as the weaver found it
   * @param due told of the sources that will have to be read again, before anything is changed
   * @returns the sources in which such a link occurs
   */
  async check(joining: readonly OverJoining[], due: (ids: readonly number[]) => Promise<void>): Promise<number[]> {
    if (joining.length === 0) return [];
    const kinds = (await this.declarations.kinds()).flatMap(({ id, ...kind }) => {
      const found = joining.find((one) => one.kind === id);
      return found && kind.role === 'link' && kind.trusted !== true ? [{ id, kind, found }] : [];
    });
    if (kinds.length === 0) return [];
    const sources = await this.sources.withKinds(kinds.map((one) => one.id));
    await due(sources);
    const named = await this.identifiers.named(kinds.map((one) => one.found.worst));
    for (const { kind, found } of kinds) {
      const { values, joining: several, worst, worstCount } = found;
      const guarded = { values, joining: several, worst: named.get(worst)?.value ?? '', worstCount };
      await this.declarations.saveKind({ ...kind, role: 'shared', guarded }, Access.guard);
    }
    return sources;
  }
}
