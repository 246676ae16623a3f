import { emptyDraft, type Draft, type Reader, type RecordReader, type Sample } from '../types.ts';
import { BySample } from './by-sample.ts';
import { learnHead, readHead, type Head } from './text-head.ts';

const MOST_LINES = 200;
/** So many lines begin with a head that what does not goes on with the line above. */
const NEARLY_ALL = 0.7;
const LEAST = 0.5;

/** Any lines: each is kept whole, none is understood, since none tells a time. The last resort, so that nothing is lost; a level at the begin of most lines is told. */
export const plain: Reader = {
  format: 'plain',
  confidence: () => 0.01,
  open: (sample) => new PlainReader(heads.of(sample, '', 0, () => learn(sample))),
};
const heads = new BySample<Learned | null>(() => false);
interface Learned {
  head: Head;
  share: number;
}

function learn(sample: Sample): Learned | null {
  const lines = sample.lines.slice(0, MOST_LINES).filter((line) => line.trim() !== '');
  const head = learnHead(lines);
  if (!head?.hasLevel) return null;
  const share = lines.filter((line) => tellsLevel(line, head)).length / lines.length;
  return share >= LEAST ? { head, share } : null;
}
function tellsLevel(line: string, head: Head): boolean {
  const draft = emptyDraft();
  return readHead(line, head, draft) > 0 && draft.level > 0;
}

class PlainReader implements RecordReader {
  constructor(private readonly learned: Learned | null) {}
  start(): void {}

  begins(line: string): boolean {
    const { learned } = this;
    if (learned && tellsLevel(line, learned.head)) return true;
    return !(learned && learned.share >= NEARLY_ALL) && line.charCodeAt(0) !== 32 && line.charCodeAt(0) !== 9;
  }

  read(text: string, draft: Draft): void {
    if (this.learned) readHead(text, this.learned.head, draft);
    draft.message = text;
  }
}
