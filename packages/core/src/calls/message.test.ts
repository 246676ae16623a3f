import { describe, expect, test } from '@jest/globals';
import { isAnonymous, nameOf, numberOf, partyOf, uriOf } from './address.ts';
import { isPrivate, mediaOf } from './description.ts';
import { beginsSip, callIdOf, sequenceOf, sipMessage, topVia } from './message.ts';
import { refusals } from './refusals.ts';
import { text } from './testing/messages.ts';
import { TORTURE } from './testing/torture.ts';

describe('messages that try a reader', () => {
  test.each(TORTURE.map((one) => [one.name, one] as const))('%s', (_name, { text: told, refused, method, status }) => {
    const message = sipMessage(told);
    if (refused === null) {
      expect(refusals(message!)).toEqual([]);
      if (method !== undefined) expect(message!.method).toBe(method);
      if (status !== undefined) expect(message!.status).toBe(status);
    } else if (message) expect(refusals(message).join('; ')).toMatch(refused);
    else expect(method).toBeUndefined();
  });
  test('ends and folds read alike', () => {
    const message = sipMessage(TORTURE[0]!.text.replaceAll('\n', '\r\n'))!;
    expect(sequenceOf(message)).toEqual({ number: 9, method: 'INVITE' });
    expect(callIdOf(message)).toBe('wsinv.ndaksdj@192.0.2.1');
    expect(partyOf(message.headers.get('to')![0]!)).toMatchObject({ user: 'vivekg', host: 'chair-dnrc.example.com', tag: '1918181833n' });
    expect(mediaOf(message.body).map((one) => [one.kind, one.address, one.port])).toEqual([['audio', '192.0.2.4', 49217], ['video', '192.0.2.4', 3227]]); // prettier-ignore
  });
  test('any beginning of a message, and any piece of it put twice, is read or refused, never a crash', () => {
    for (const { text: told } of TORTURE)
      for (let at = 0; at <= told.length; at += 7) {
        for (const cut of [told.slice(0, at), told.slice(at), told.slice(0, at) + told.slice(Math.max(0, at - 40))]) {
          const message = sipMessage(cut);
          if (message) for (const one of [...refusals(message), topVia(message)]) expect(typeof one).toBe('string');
        }
      }
  });
  test('what is no message of SIP is none', () => {
    for (const no of [
      '',
      'GET / HTTP/1.1\nHost: here\n\n',
      'INVITE somebody to the meeting',
      'SIP/2.0 is a version',
      '2026-11-24 10:00:00 INFO INVITE sip:a@b SIP/2.0 sent',
    ])
      expect([no, beginsSip(no)]).toEqual([no, false]);
    expect(beginsSip(text('SIP/2.0 180 Ringing', '1 INVITE'))).toBe(true);
    expect(beginsSip('BYE sip:alice@example.com SIP/2.0\r\nVia: x')).toBe(true);
  });
});

describe('who is meant', () => {
  test.each([
    ['"A. G. Bell" <sip:agb@bell-telephone.example>;tag=a48s', { display: 'A. G. Bell', user: 'agb', host: 'bell-telephone.example', tag: 'a48s' }],
    ['sip:+12125551212@server.phone2net.example;tag=887s', { display: '', user: '+12125551212', host: 'server.phone2net.example', tag: '887s' }],
    ['Anonymous <sip:c8oqz84zk7z@privacy.example>;tag=hyh8', { display: 'Anonymous', user: 'c8oqz84zk7z' }],
    ['<tel:+49-30-231-25-200;phone-context=+49>', { scheme: 'tel', user: '+49-30-231-25-200', host: '' }],
    ['<sips:bob@[2001:db8::9]:5061>', { scheme: 'sips', user: 'bob', host: '[2001:db8::9]:5061' }],
    ['"Doe, Jane" <sip:%6a%61ne:secret@here.example;user=phone>', { display: 'Doe, Jane', user: 'jane', host: 'here.example' }],
  ])('%s', (written, expected) => expect(partyOf(written)).toMatchObject(expected));
  test('a number is one in any notation, a name is none', () => {
    expect(['+4930 231 25-200', '004930231 25200', '(030) 23125/200', '0 30 23125200', '140', '*140#', 'alice', 'a1'].map(numberOf)).toEqual(['+493023125200', '+493023125200', '+493023125200', '+493023125200', '140', '140', null, null]); // prettier-ignore
  });
  test('somebody who does not want to be known is called that', () => {
    const hidden = partyOf('"Anonymous" <sip:anonymous@anonymous.invalid>;tag=1')!;
    expect([isAnonymous(hidden), nameOf(hidden)]).toEqual([true, 'anonymous']);
    expect(nameOf(partyOf('<sip:reception@here.example>')!)).toBe('reception');
  });
  test('what is no address is none', () => {
    for (const no of ['', 'nobody', '<>', '"open']) expect(partyOf(no)).toBeNull();
    expect(uriOf('sip:')).toEqual({ scheme: 'sip', user: '', host: '' });
  });
});

test('what is said of media: names of static types, the session’s address and direction, no events', () => {
  const body = ['v=0', 'c=IN IP4 192.0.2.9', 'a=sendonly', 'm=audio 4000 RTP/AVP 8 0 101 97', 'a=rtpmap:101 telephone-event/8000', 'a=rtpmap:97 opus/48000/2', 'm=video 0 RTP/AVP 34', 'c=IN IP4 10.1.2.3', 'a=inactive', ''].join('\r\n'); // prettier-ignore
  expect(mediaOf(body)).toEqual([
    { kind: 'audio', address: '192.0.2.9', port: 4000, codecs: ['PCMA', 'PCMU', 'OPUS'], direction: 'sendonly' },
    { kind: 'video', address: '10.1.2.3', port: 0, codecs: ['H263'], direction: 'inactive' },
  ]);
  expect(mediaOf(`--part\nContent-Type: application/sdp\n\n${body}\n--part--`)).toHaveLength(2);
  expect(mediaOf('nothing of media')).toEqual([]);
  expect(['10.0.0.1', '172.31.0.1', '172.32.0.1', '192.168.7.7', '100.64.0.1', '8.8.8.8', 'fd00::1'].map(isPrivate)).toEqual([true, true, false, true, true, false, true]); // prettier-ignore
});
