export { signOf, versionIn } from './sign.ts';
export { changesOf, statesAt } from './derive.ts';
export { changesBefore, likelierSince, type BeforeAndSince } from './before.ts';
export { begunAnew } from './anew.ts';
export { versionSpans, type VersionSpan } from './version-spans.ts';
export { changeWords } from './words.ts';
export { SIGN_KINDS, type Change, type ChangeKind, type KnownState, type Sign, type SignKind, type SignSpan } from './types.ts';
