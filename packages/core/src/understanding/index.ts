export * from './types.ts';
export { understand } from './understand.ts';
