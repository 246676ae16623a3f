import type { FieldValue } from '@fadenweg/core';

/** What stands in a record as far as its row keeps it: readers find identifiers in all of its text, also where that became fields. */
export const textOf = (message: string, fields: Readonly<Record<string, FieldValue>>): string => [message, ...Object.values(fields)].join('\n');
