export { codesIn, systemWord } from './find.ts';
export { CODE_SYSTEMS, type CodeSystem, type Explanation, type FoundCode, type OwnCode } from './types.ts';
export { Q850, SIP } from './sip.ts';
