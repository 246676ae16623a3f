import type { Stretch } from '@fadenweg/core/coverage';

export type ComponentSpan = Stretch & { component: string };
/** First and last record of each source, by the component that it is of. */
export const SPANS = `select c.name as component, s.first_at as "from", s.last_at as "to" from source s join component c on c.id = s.component_id where s.records > 0 and s.first_at is not null`;
