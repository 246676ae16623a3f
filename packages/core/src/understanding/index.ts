export * from './types.ts';
export { offered } from './newcomer.ts';
export { understand } from './understand.ts';
