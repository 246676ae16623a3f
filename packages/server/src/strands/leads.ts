import { Elsewhere, notFound, Refusal } from '../platform/http/problems.ts';
import type { StrandRow } from '../weaving/strand-rows.ts';
import type { StrandService } from './strand-service.ts';

/** The strand that an id leads to. @throws Elsewhere when it was merged into another; a refusal with the choices when there are several */
export async function leads(strands: StrandService, strandId: string): Promise<StrandRow> {
  const found = await strands.resolve(strandId);
  if (!found) throw notFound(`The strand “${strandId.slice(0, 120)}”`);
  if ('row' in found) return found.row;
  if ('moved' in found) throw new Elsewhere(`/api/strands/${encodeURIComponent(found.moved)}`);
  throw new Refusal(
    300,
    'It belongs to several strands',
    `This identifier was used again and again; each time it belonged to another strand. The latest ${found.choices.length} are listed.`,
    'Choose the one of the time that you mean.',
    { choices: found.choices },
  );
}
