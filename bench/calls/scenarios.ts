/** How a call goes that is drawn, and what is true of it. */
export interface Course {
  /** The final answer to its INVITE, with which it is turned away or taken; null where nobody answers. */
  status: number | null;
  /** Who turned it away, gave it up or hung up. */
  endedBy: 'caller' | 'called' | null;
  outcomes: readonly string[];
  caller: readonly string[];
  called: readonly string[];
}
interface Said {
  start: string;
  sequence: number;
  method: string;
  extra?: string[];
  body?: string;
}

const sdp = (port: number, codecs: string, way = ''): string =>
  ['v=0', 'o=- 4242 4242 IN IP[local_ip_type] [local_ip]', 's=-', 'c=IN IP[media_ip_type] [media_ip]', 't=0 0', `m=audio ${port} RTP/AVP ${codecs}`, 'a=rtpmap:8 PCMA/8000', 'a=rtpmap:0 PCMU/8000', ...(way ? [`a=${way}`] : [])].join('\n'); // prettier-ignore
const written = (lines: readonly string[], body: string): string =>
  [...lines, ...(body ? ['Content-Type: application/sdp'] : []), 'Content-Length: [len]', '', body].join('\n');
const send = (text: string, options = ''): string => `<send${options}><![CDATA[\n${text}\n]]></send>`;
const pause = (min: number, max: number): string => `<pause distribution="uniform" min="${min}" max="${max}"/>`;
const hears = (...codes: number[]): string => codes.map((code, i) => `<recv response="${code}"${i < codes.length - 1 ? ' optional="true"' : ''}/>`).join('\n'); // prettier-ignore

/** What the caller sends. */
const asks = ({ start, sequence, method, extra = [], body = '' }: Said, options = ' retrans="500"'): string =>
  send(
    written(
      [
        `${start} sip:[field1]@[remote_ip]:[remote_port] SIP/2.0`,
        'Via: SIP/2.0/[transport] [local_ip]:[local_port];branch=[branch]',
        'From: "[field2]" <sip:[field0]@[local_ip]:[local_port]>;tag=[pid]c[call_number]',
        `To: <sip:[field1]@[remote_ip]:[remote_port]>${sequence === 1 && start !== 'ACK' ? '' : '[peer_tag_param]'}`,
        'Call-ID: [call_id]',
        `CSeq: ${sequence} ${method}`,
        'Contact: <sip:[field0]@[local_ip]:[local_port]>',
        'Max-Forwards: 70',
        'User-Agent: desk-phone/2.1',
        ...extra,
      ],
      body,
    ),
    options,
  );
const invite = asks({ start: 'INVITE', sequence: 1, method: 'INVITE', body: sdp(6100, '8 0') });
const ack = (sequence = 1): string => asks({ start: 'ACK', sequence, method: 'ACK' }, '');
/** Of what was turned away, on the branch of its INVITE so many steps before (RFC 3261, section 17.1.1.3). */
const ackOf = (back: number): string => ack().replace('branch=[branch]', `branch=[branch-${back}]`);
const bye = (sequence = 2): string => `${asks({ start: 'BYE', sequence, method: 'BYE' })}\n${hears(200)}`;
/** What the called side answers. */
const answers = (code: number, phrase: string, extra: string[] = [], body = ''): string =>
  send(
    written(
      [`SIP/2.0 ${code} ${phrase}`, '[last_Via:]', '[last_From:]', '[last_To:];tag=[pid]s[call_number]', '[last_Call-ID:]', '[last_CSeq:]', 'Contact: <sip:[local_ip]:[local_port]>', 'Server: front-desk/7', ...extra], // prettier-ignore
      body,
    ),
  );
/** Inside of a dialog To has its tag already. */
const answersWithin = (code: number, phrase: string, body = ''): string => answers(code, phrase, [], body).replace(';tag=[pid]s[call_number]', '');
const isAsked = (method: string): string => `<recv request="${method}"/>`;
const opening = `<recv request="INVITE"><action><ereg regexp=".*" search_in="hdr" header="From:" assign_to="1"/><ereg regexp=".*" search_in="hdr" header="To:" assign_to="2"/></action></recv>\n<nop><action><assignstr assign_to="3" value="[$1][$2]"/></action></nop>\n<Reference variables="1,2,3"/>`; // prettier-ignore
/** The called side asks: From and To change places. */
const asksBack = (start: string, sequence: number, extra: string[] = [], body = ''): string =>
  send(
    [`${start} sip:caller@[remote_ip]:[remote_port] SIP/2.0`, 'Via: SIP/2.0/[transport] [local_ip]:[local_port];branch=[branch]', 'From:[$2];tag=[pid]s[call_number]', 'To:[$1]', 'Call-ID: [call_id]', `CSeq: ${sequence} ${start}`, 'Contact: <sip:[local_ip]:[local_port]>', 'Max-Forwards: 70', ...extra, 'Content-Length: [len]', '', body].join('\n'), // prettier-ignore
    ' retrans="500"',
  );
const taking = [pause(200, 900), answers(200, 'OK', [], sdp(6200, '8')), isAsked('ACK')];
const turnedAway = (code: number, phrase: string, extra: string[] = []): Course => ({
  status: code,
  endedBy: 'called',
  outcomes: code >= 500 ? ['refused', 'failed'] : code === 488 ? ['failed'] : ['refused'],
  caller: [invite, hears(100, 180, code), ackOf(4)],
  called: [opening, pause(20, 120), answers(180, 'Ringing'), pause(100, 700), answers(code, phrase, extra), isAsked('ACK')],
});
const put = { status: 200, endedBy: 'caller' as const, outcomes: ['done'] };
const ringing = [opening, pause(20, 200), answers(180, 'Ringing')];
const hold = (sequence: number, way: string): string => [asks({ start: 'INVITE', sequence, method: 'INVITE', body: sdp(6100, '8', way) }), hears(100, 200), ack(sequence)].join('\n'); // prettier-ignore
const held = (way: string): string => [isAsked('INVITE'), answersWithin(200, 'OK', sdp(6200, '8', way)), isAsked('ACK')].join('\n');

/** Every way in which a call can go. */
export const COURSES: Record<string, Course> = {
  talked: { ...put, caller: [invite, hears(100, 180, 200), ack(), pause(300, 2500), bye()], called: [...ringing, ...taking, isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  'hung up by the called': { ...put, endedBy: 'called', caller: [invite, hears(100, 180, 200), ack(), isAsked('BYE'), answersWithin(200, 'OK')], called: [...ringing, ...taking, pause(300, 2500), asksBack('BYE', 1), hears(200)] }, // prettier-ignore
  announced: { ...put, caller: [invite, hears(100, 183, 200), ack(), pause(300, 1500), bye()], called: [opening, pause(20, 200), answers(183, 'Session Progress', [], sdp(6200, '8')), ...taking, isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  busy: turnedAway(486, 'Busy Here'),
  unknown: turnedAway(404, 'Not Found'),
  'no codec': turnedAway(488, 'Not Acceptable Here', ['Warning: 304 front-desk "Media type not available"']),
  broken: turnedAway(503, 'Service Unavailable', ['Retry-After: 30']),
  'not taken': turnedAway(480, 'Temporarily Unavailable'),
  'given up': { status: 487, endedBy: 'caller', outcomes: ['refused'], caller: [invite, hears(100, 180), pause(200, 900), asks({ start: 'CANCEL', sequence: 1, method: 'CANCEL' }).replace('branch=[branch]', 'branch=[branch-4]'), hears(200, 487).replace(' optional="true"', ''), ackOf(7)], called: [...ringing, isAsked('CANCEL'), answers(200, 'OK'), answers(487, 'Request Terminated').replace('[last_CSeq:]', 'CSeq: 1 INVITE').replace('[last_To:]', 'To:[$2]'), isAsked('ACK')] }, // prettier-ignore
  challenged: { ...put, caller: [invite, hears(100, 407), ackOf(3), asks({ start: 'INVITE', sequence: 2, method: 'INVITE', extra: ['Proxy-Authorization: Digest username="desk", realm="gate.example", nonce="51f2", uri="sip:gate.example", response="8f1c2e0d4b5a69788796a5b4c3d2e1f0"'], body: sdp(6100, '8 0') }).replace('[peer_tag_param]', ''), hears(100, 180, 200), ack(2), pause(300, 1500), bye(3)], called: [opening, answers(407, 'Proxy Authentication Required', ['Proxy-Authenticate: Digest realm="gate.example", nonce="51f2"']), isAsked('ACK'), isAsked('INVITE'), pause(20, 200), answers(180, 'Ringing'), ...taking, isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  held: { ...put, caller: [invite, hears(100, 180, 200), ack(), pause(200, 500), hold(2, 'sendonly'), pause(200, 500), hold(3, 'sendrecv'), pause(200, 400), bye(4)], called: [...ringing, ...taking, held('recvonly'), held('sendrecv'), isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  'asked again': { ...put, caller: [invite, hears(100, 180, 200), ack(), pause(300, 1500), bye()], called: [opening, pause(620, 1300), answers(180, 'Ringing'), ...taking, isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  'handed on': { ...put, caller: [invite, hears(100, 180, 200), ack(), pause(300, 900), asks({ start: 'REFER', sequence: 2, method: 'REFER', extra: ['Refer-To: <sip:+493023125990@gate.example>'] }), hears(202), isAsked('NOTIFY'), answersWithin(200, 'OK'), bye(3)], called: [...ringing, ...taking, isAsked('REFER'), answersWithin(202, 'Accepted'), pause(200, 700), asksBack('NOTIFY', 1, ['Event: refer', 'Subscription-State: terminated;reason=noresource', 'Content-Type: message/sipfrag'], 'SIP/2.0 200 OK'), hears(200), isAsked('BYE'), answersWithin(200, 'OK')] }, // prettier-ignore
  unheard: { status: null, endedBy: null, outcomes: ['failed', 'stalled', 'running'], caller: [invite, '<recv response="100" optional="true"/>', '<recv response="408" timeout="4000" ontimeout="9"/>', ackOf(3), '<label id="9"/>'], called: [opening, pause(4500, 5000)] }, // prettier-ignore
};
/** A scenario as the load generator reads it. */
export const scenarioOf = (name: string, steps: readonly string[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<scenario name="${name}">\n${steps.join('\n')}\n</scenario>\n`;
