/** When what happened of a call, by the caller's own records, in milliseconds after its first INVITE; null for what did not. */
export interface CallTimes {
  heard: number | null;
  answered: number | null;
  acknowledged: number | null;
  hungUp: number | null;
  status: number | null;
}
export interface Block {
  at: number;
  start: string;
  method: string;
  number: number;
  callId: string;
  caller: string;
  called: string;
}
const pick = (text: string, pattern: RegExp): string => pattern.exec(text)?.[1] ?? '';

/** The messages of a capture, read in the plainest way: a rule of a moment, then the message. */
export function blocksOf(text: string): Block[] {
  const blocks = text.split(/^-{20,} /m).filter((one) => one.trim());
  const numbers = new Map<string, string>();
  return blocks.map((one) => {
    const callId = pick(one, /^Call-ID: *(\S+)/m);
    const start = pick(one, /^((?:SIP\/2\.0|[A-Z]+ sip:).*)$/m);
    if (start.startsWith('INVITE') && !numbers.has(callId)) numbers.set(callId, pick(start, /sip:([^@]+)@/));
    const [, number, method] = /^CSeq: *(\d+) +(\S+)/m.exec(one)!;
    return { at: Date.parse(`${one.slice(0, 23).replace(' ', 'T')}Z`) + Number(one.slice(23, 26)) / 1000, start, method: method!, number: Number(number), callId, caller: pick(one, /^From: *[^<\n]*<sip:([^@]+)@/m), called: numbers.get(callId) ?? '' }; // prettier-ignore
  });
}
/** What happened when, of each call. */
export function timesOf(blocks: readonly Block[]): { callId: string; caller: string; called: string; times: CallTimes }[] {
  const calls = new Map<string, Block[]>();
  for (const one of blocks) calls.set(one.callId, [...(calls.get(one.callId) ?? []), one]);
  return [...calls].map(([callId, own]) => {
    const begun = own[0]!.at;
    // the last INVITE that begins the call: one that is asked who it is asks again; later ones change what is talked about
    const last = own.some((one) => /^SIP\/2\.0 40[17]/.test(one.start)) ? 2 : 1;
    const answers = own.filter((one) => one.start.startsWith('SIP') && one.method === 'INVITE');
    const heard = answers.find((one) => /^SIP\/2\.0 18/.test(one.start));
    const final = answers.find((one) => one.number === last && !one.start.startsWith('SIP/2.0 1'));
    const status = final ? Number(final.start.slice(8, 11)) : null;
    const after = (found: Block | undefined): number | null => (found ? found.at - begun : null);
    const isPut = status !== null && status < 300;
    return {
      callId,
      caller: own[0]!.caller,
      called: own[0]!.called,
      times: { heard: after(heard), answered: after(final), acknowledged: isPut ? after(own.find((one) => one.start.startsWith('ACK') && one.number === last)) : null, hungUp: isPut ? after(own.find((one) => one.start.startsWith('BYE'))) : null, status }, // prettier-ignore
    };
  });
}
