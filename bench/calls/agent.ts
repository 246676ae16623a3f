import { createSocket, type Socket } from 'node:dgram';
import { appendFileSync } from 'node:fs';

/** How two sides of one call can be told to be one: by a header of a standard (RFC 7989), by the agent's own records, or by nothing but numbers and time. */
export type Tie = 'session' | 'records' | 'numbers';
interface Leg {
  callId: string;
  own: string;
  /** From and To of what the agent sends on this side, without its tags. */
  from: string;
  to: string;
  peerTag: string | null;
  port: number;
  sequence: number;
  other: Leg;
}
interface Passed {
  /** What was asked on one side, whose answer goes back. */
  asked: Message;
  leg: Leg;
  invite: string;
}
interface Message {
  start: string;
  lines: string[];
  body: string;
}
const LOOPBACK = '127.0.0.1';

/** Somebody between two sides who calls by himself: takes a call, makes another one with names of its own, and passes on what either side says. */
export class Agent {
  private readonly socket: Socket = createSocket('udp4');
  private readonly legs = new Map<string, Leg>();
  private readonly passed = new Map<string, Passed>();
  private readonly seen = new Map<string, string | null>();
  private count = 0;
  /** What really is one: Call-IDs of the side that was put on, by the side that began. */
  readonly pairs = new Map<string, string>();

  /**
   * @param routes the port at which each called user is
   * @param log where it writes what it does
   */
  constructor(
    private readonly port: number,
    private readonly routes: ReadonlyMap<string, number>,
    private readonly tie: Tie,
    private readonly log: string,
    private readonly now: () => Date,
  ) {}
  async start(): Promise<void> {
    this.socket.on('message', (data, { port }) => this.heard(read(data.toString()), port));
    await new Promise<void>((resolve) => this.socket.bind(this.port, LOOPBACK, resolve));
  }
  async stop(): Promise<void> {
    await new Promise<void>((resolve) => this.socket.close(resolve));
  }

  private heard(message: Message, port: number): void {
    if (message.start.startsWith('SIP/2.0')) return this.answered(message);
    const [method] = message.start.split(' ') as [string];
    const known = `${branch(message)} ${method}`;
    if (this.seen.has(known)) {
      const before = this.seen.get(known);
      return before ? this.send(before, port) : undefined;
    }
    this.seen.set(known, null);
    const leg = this.legs.get(value(message, 'Call-ID')) ?? (method === 'INVITE' ? this.taken(message, port) : undefined);
    if (!leg) return;
    if (method === 'INVITE') this.reply(message, leg, '100 Trying', '');
    if (method === 'ACK') return this.acknowledged(message, leg);
    if (method === 'CANCEL') this.reply(message, leg, '200 OK', '');
    leg.peerTag ??= tag(value(message, 'From'));
    this.ask(method, message, leg.other, leg);
  }
  /** A new call: its other side begins. */
  private taken(message: Message, port: number): Leg {
    const number = ++this.count;
    const user = /<sip:([^@>]*)@/.exec(value(message, 'From'))![1]!;
    const wanted = /^\S+ sip:([^@]*)@/.exec(message.start)![1]!;
    const here = `${LOOPBACK}:${this.port}`;
    const own = `m${number.toString(36)}${Math.floor(number * 7919).toString(16)}`;
    const a = { callId: value(message, 'Call-ID'), own: `${own}a`, from: value(message, 'To'), to: value(message, 'From'), peerTag: tag(value(message, 'From')), port, sequence: 0 } as Leg; // prettier-ignore
    const b = { callId: `${crypto.randomUUID()}@${LOOPBACK}`, own: `${own}b`, from: `<sip:${user}@${here}>`, to: `<sip:${wanted}@${LOOPBACK}>`, peerTag: null, port: this.routes.get(wanted)!, sequence: 0 } as Leg; // prettier-ignore
    a.other = b;
    b.other = a;
    this.legs.set(a.callId, a);
    this.legs.set(b.callId, b);
    this.pairs.set(a.callId, b.callId);
    if (this.tie === 'records') this.write(`call ${a.callId} from ${user} to ${wanted}: put on as ${b.callId}`);
    return a;
  }
  /** Asks the same on the other side. */
  private ask(method: string, message: Message, leg: Leg, from: Leg): void {
    const before = method === 'CANCEL' ? [...this.passed.values()].find(({ asked, leg: one }) => one === from && branch(asked) === branch(message)) : undefined; // prettier-ignore
    const id = before?.invite ?? `z9hG4bK${leg.own}${++this.count}`;
    const sequence = before ? leg.sequence : ++leg.sequence;
    const invite = this.request(method, leg, id, sequence, kept(message), message.body);
    this.passed.set(`${id} ${method}`, { asked: message, leg: from, invite: id });
    this.send(invite, leg.port);
  }
  private request(method: string, leg: Leg, id: string, sequence: number, extra: string[], body: string): string {
    const user = /sip:([^@>]*)@/.exec(leg.to)?.[1] ?? 'side';
    return text(
      `${method} sip:${user}@${LOOPBACK}:${leg.port} SIP/2.0`,
      [
        `Via: SIP/2.0/UDP ${LOOPBACK}:${this.port};branch=${id}`,
        'Max-Forwards: 69',
        `From: ${untagged(leg.from)};tag=${leg.own}`,
        `To: ${untagged(leg.to)}${leg.peerTag ? `;tag=${leg.peerTag}` : ''}`,
        `Call-ID: ${leg.callId}`,
        `CSeq: ${sequence} ${method}`,
        `Contact: <sip:${LOOPBACK}:${this.port}>`,
        ...(this.tie === 'session' ? [`Session-ID: ${hex(leg, 'a')};remote=${hex(leg, 'b')}`] : []),
        ...extra,
      ],
      body,
    );
  }
  private answered(message: Message): void {
    const method = value(message, 'CSeq').split(' ')[1]!;
    const passed = this.passed.get(`${branch(message)} ${method}`);
    const status = message.start.slice(8);
    if (!passed || status.startsWith('100')) return;
    const { asked, leg } = passed;
    const far = leg.other;
    far.peerTag = tag(value(message, 'To')) ?? far.peerTag;
    if (method === 'INVITE' && Number(status.slice(0, 3)) >= 300) {
      const bare = this.request('ACK', far, passed.invite, far.sequence, [], '');
      this.send(bare, far.port);
      if (/^40[17]/.test(status)) far.peerTag = null;
    }
    if (method !== 'CANCEL') this.reply(asked, leg, status, message.body, kept(message));
  }
  private reply(asked: Message, leg: Leg, status: string, body: string, extra: string[] = []): void {
    const to = value(asked, 'To');
    const said = text(
      `SIP/2.0 ${status}`,
      [`Via: ${value(asked, 'Via')}`, `From: ${value(asked, 'From')}`, `To: ${tag(to) || status.startsWith('100') ? to : `${to};tag=${leg.own}`}`, `Call-ID: ${leg.callId}`, `CSeq: ${value(asked, 'CSeq')}`, `Contact: <sip:${LOOPBACK}:${this.port}>`, ...(this.tie === 'session' && !status.startsWith('100') ? [`Session-ID: ${hex(leg, 'b')};remote=${hex(leg, 'a')}`] : []), ...extra], // prettier-ignore
      body,
    );
    this.seen.set(`${branch(asked)} ${asked.start.split(' ')[0]}`, said);
    this.send(said, leg.port);
  }
  private acknowledged(message: Message, leg: Leg): void {
    // an ACK of what was turned away is of this side alone
    const own = [...this.passed.values()].some(({ asked, leg: one }) => one === leg && branch(asked) === branch(message));
    if (!own) this.send(this.request('ACK', leg.other, `z9hG4bK${leg.own}${++this.count}`, leg.other.sequence, [], message.body), leg.other.port);
  }
  private send(message: string, port: number): void {
    this.socket.send(message, port, LOOPBACK);
  }
  private write(line: string): void {
    appendFileSync(this.log, `${this.now().toISOString()} INFO  bridge - ${line}\n`);
  }
}
/** Session identifiers as the standard writes them: the asking side's and the other's, the same on both sides of an agent. */
const hex = (leg: Leg, side: string): string => {
  const first = leg.own.endsWith('a') ? leg : leg.other;
  return Buffer.from(`${first.own}${side}-session-of-it`).toString('hex').slice(0, 32).padEnd(32, '0');
};
const KEPT = /^(?:Content-Type|Refer-To|Event|Subscription-State|Proxy-Authenticate|Proxy-Authorization|Warning|Retry-After|User-Agent|Server)\s*:/i;
const kept = ({ lines }: Message): string[] => lines.filter((line) => KEPT.test(line));
const value = ({ lines }: Message, name: string): string =>
  lines.find((line) => line.toLowerCase().startsWith(`${name.toLowerCase()}:`))?.slice(name.length + 1).trim() ?? ''; // prettier-ignore
const branch = (message: Message): string => /branch=([^;\s]+)/.exec(value(message, 'Via'))?.[1] ?? '';
const tag = (header: string): string | null => /;tag=([^;\s]+)/.exec(header)?.[1] ?? null;
const untagged = (header: string): string => header.replace(/;tag=[^;\s]+/, '');
const text = (start: string, lines: readonly string[], body: string): string =>
  [start, ...lines, `Content-Length: ${Buffer.byteLength(body)}`, '', body].join('\r\n');
function read(data: string): Message {
  const [head, ...body] = data.split(/\r?\n\r?\n/);
  const [start, ...lines] = head!.split(/\r?\n/);
  return { start: start!, lines, body: body.join('\r\n\r\n') };
}
