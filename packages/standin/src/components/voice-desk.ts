import { germanText, type Micros } from '../writing/times.ts';

export const VOICE_DESK = 'voice-desk/voice.log';
/** Voice application: day first, bars between the parts, local time without offset. */
export const voiceLine = (at: Micros, level: string, callId: string, message: string): string =>
  `${germanText(at)} | ${level} | ${message} call_id=${callId}`;
