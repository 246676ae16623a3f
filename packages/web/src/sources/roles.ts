import type { Role } from '@fadenweg/api';

/** What the roles of identifiers mean. */
export const ROLES: Record<Role, string> = { business: 'names one transaction', link: 'ties records', shared: 'shared by many' };
