/** Messages in the manner of RFC 4475: those that are hard to read and right, and those that are to be refused, with a word of why. */
export interface Torture {
  name: string;
  text: string;
  /** null where it is right; else what has to be among the reasons. */
  refused: RegExp | null;
  method?: string;
  status?: number;
}
const head = (more: string, start = 'INVITE sip:user@example.com SIP/2.0'): string =>
  `${start}\nMax-Forwards: 70\nFrom: sip:caller@example.org;tag=33242\nTo: sip:user@example.com\nCall-ID: t.29384@example.org\nCSeq: 8 INVITE\nVia: SIP/2.0/TCP host9.example.com;branch=z9hG4bKkdjuw39234\n${more}`;
const without = (name: string, more: string, start?: string): string => head(more, start).replace(new RegExp(`^${name}:.*\\n`, 'm'), '');

export const TORTURE: readonly Torture[] = [
  {
    name: 'folded lines, compact names, blanks before colons, a quoted quote',
    text: `INVITE sip:vivekg@chair-dnrc.example.com;unknownparam SIP/2.0
TO :
 sip:vivekg@chair-dnrc.example.com ;   tag    = 1918181833n
from   : "J Rosenberg \\\\\\""       <sip:jdrosen@example.com>
  ;
  tag = 98asjd8
MaX-fOrWaRdS: 0068
Call-ID: wsinv.ndaksdj@192.0.2.1
Content-Length   : 150
cseq: 0009
  INVITE
Via  : SIP  /   2.0
 /UDP
    192.0.2.2;branch=390skdjuw
s :
NewFangledHeader:   newfangled value
 continued newfangled value
Content-Type: application/sdp
v:  SIP  / 2.0  / TCP     spindle.example.com   ;
  branch  =   z9hG4bK9ikj8
m:"Quoted string \\"\\"" <sip:jdrosen@example.com> ; newparam =
      newvalue ;
  secondparam ; q = 0.33

v=0
o=mhandley 29739 7272939 IN IP4 192.0.2.3
s=-
c=IN IP4 192.0.2.4
t=0 0
m=audio 49217 RTP/AVP 0 12
m=video 3227 RTP/AVP 31
a=rtpmap:31 LPC
`,
    refused: null,
    method: 'INVITE',
  },
  {
    name: 'a method of many characters',
    text: `!interesting-Method0123456789_*+\`.%indeed'~ sip:1_unusual.URI~(to-be!sure)&isn't+it$/crazy?,/;;*:&it+has=1,weird!*pas$wo~d_too.(doesn't-it)@example.com SIP/2.0`,
    refused: /./,
  },
  {
    name: 'escapes in an address',
    text: head(
      'Contact:\n  <sip:cal%6Cer@host5.example.net;%6C%72;n%61me=v%61lue%25%34%31>\nContent-Length: 0\n\n',
      'INVITE sip:sips%3Auser%40example.com@example.net SIP/2.0',
    ),
    refused: null,
    method: 'INVITE',
  },
  { name: 'a name without quotes', text: head('Contact: caller <sip:caller@example.com>\nl: 0\n\n'), refused: null, method: 'INVITE' },
  {
    name: 'an answer with a long phrase of other letters',
    text: `SIP/2.0 200 = 2**3 * 5**2 но сто девяносто девять - простое\nVia: SIP/2.0/UDP 192.0.2.198;branch=z9hG4bK1324923\nCall-ID: unreason.1234ksdfak3j2erwedfsASdf\nCSeq: 35 INVITE\nFrom: sip:user@example.com;tag=11141343\nTo: sip:user@example.edu;tag=2229\nContent-Length: 0\n\n`,
    refused: null,
    status: 200,
  },
  {
    name: 'an answer without a phrase',
    text: 'SIP/2.0 100 \nVia: SIP/2.0/UDP 192.0.2.105;branch=z9hG4bK2398ndaoe\nCall-ID: noreason.asndj203insdf99223ndf\nCSeq: 35 INVITE\nFrom: <sip:user@example.com>;tag=39ansfi3\nTo: <sip:user@example.edu>;tag=902jndnke3\nContent-Length: 0\n\n',
    refused: null,
    status: 100,
  },
  {
    name: 'a body that is longer than it says',
    text: head('Content-Type: text/plain\nContent-Length: 5\n\nhello and more'),
    refused: null,
    method: 'INVITE',
  },
  {
    name: 'Content-Length beyond the end',
    text: head('Content-Type: application/sdp\nContent-Length: 9999\n\nv=0\ns=-\n'),
    refused: /Content-Length is more/,
  },
  { name: 'a negative Content-Length', text: head('Content-Length: -999\n\nv=0\n'), refused: /Content-Length is no number/ },
  { name: 'numbers beyond their ranges', text: head('Content-Length: 0\n\n').replace('CSeq: 8', 'CSeq: 36893488147419103232').replace('Max-Forwards: 70', 'Max-Forwards: 300'), refused: /CSeq is above|CSeq cannot|Max-Forwards/ }, // prettier-ignore
  { name: 'a CSeq above 2^31', text: head('Content-Length: 0\n\n').replace('CSeq: 8', 'CSeq: 4294967295'), refused: /CSeq is above/ },
  {
    name: 'a quote that is not closed',
    text: head('Content-Length: 0\n\n').replace('To: sip:user@example.com', 'To: "Mr. J. User <sip:j.user@example.com>'),
    refused: /to: a quote is not closed/,
  },
  { name: 'an address in angle brackets', text: head('Content-Length: 0\n\n', 'INVITE <sip:user@example.com> SIP/2.0'), refused: /angle brackets/ },
  { name: 'white space in the address', text: head('Content-Length: 0\n\n', 'INVITE sip:user@example.com; lr SIP/2.0'), refused: /white space/ },
  {
    name: 'headers in the address',
    text: head('Content-Length: 0\n\n', 'INVITE sip:user@example.com?Route=%3Csip:example.com%3E SIP/2.0'),
    refused: /holds headers/,
  },
  { name: 'a date of another zone', text: head('Date: Fri, 01 Jan 2010 16:00:00 EST\nContent-Length: 0\n\n'), refused: /Date is not in GMT/ },
  {
    name: 'a contact that needs brackets',
    text: head('Contact: sip:user@example.com?Route=%3Csip:sip.example.com%3E\nContent-Length: 0\n\n'),
    refused: /contact: such an address needs/,
  },
  { name: 'a name that needs quotes', text: head('Contact: Bell, Alexander <sip:a.g.bell@bell-tel.com>\nContent-Length: 0\n\n').replace('From: sip:caller@example.org', 'From: caller @ home <sip:caller@example.org>'), refused: /needs quotes/ }, // prettier-ignore
  { name: 'another version', text: head('Content-Length: 0\n\n', 'INVITE sip:user@example.com SIP/7.0'), refused: /version 7.0/ },
  {
    name: 'CSeq of another method',
    text: head('Content-Length: 0\n\n', 'OPTIONS sip:user@example.com SIP/2.0'),
    refused: /CSeq tells of INVITE/,
    method: 'OPTIONS',
  },
  {
    name: 'a status that is none',
    text: head('Content-Length: 0\n\n', 'SIP/2.0 4294967301 better not break the receiver'),
    refused: /status 4294967301/,
  },
  { name: 'what is needed is missing', text: without('Call-ID', 'Content-Length: 0\n\n'), refused: /call-id is missing/ },
  {
    name: 'headers that may stand once only',
    text: head('From: <sip:other@example.com>;tag=2\nContent-Length: 0\n\n'),
    refused: /from stands more than once/,
  },
  { name: 'a warning without a code', text: head('Warning: overture "In Progress"\nContent-Length: 0\n\n', 'SIP/2.0 200 OK'), refused: /Warning/ },
  {
    name: 'a body of octets that are no text',
    text: head(
      'Content-Type: multipart/mixed;boundary=7a9cbec02ceef655\nContent-Length: 30\n\n--7a9cbec02ceef655\n\u0000\u0001\u00ff\ufffd0\u0082\u0001R\u0006\n',
    ),
    refused: null,
    method: 'INVITE',
  },
  {
    name: 'a method that nobody knows',
    text: head('Content-Length: 0\n\n', 'NEWMETHOD sip:user@example.com SIP/2.0').replace('8 INVITE', '8 NEWMETHOD'),
    refused: null,
    method: 'NEWMETHOD',
  },
  {
    name: 'a scheme that nobody knows',
    text: head('Content-Length: 0\n\n', 'INVITE nobodyKnowsThisScheme:totallyopaquecontent SIP/2.0'),
    refused: null,
    method: 'INVITE',
  },
];
