import { describe, expect, it } from '@jest/globals';
import { shapeText } from './shape.ts';
import { withoutNames } from './without-names.ts';

const shape = (message: string, ...values: string[]): string => shapeText(withoutNames(message, values.map((value) => ({ value })))); // prettier-ignore

describe('the shape of a message that names something', () => {
  it('is the same whether the name holds a digit or not', () => {
    expect(shape('rq-cxruxatc taken up', 'cxruxatc')).toBe(shape('rq-5xgowmww taken up', '5xgowmww'));
    expect(shape('taken up by rq-CXRUXATC', 'rq-cxruxatc')).toBe(shape('taken up by rq-5xgowmww'));
  });
  it('keeps words that are none', () => {
    expect(shape('bed taken', 'bed')).toBe('bed taken');
    expect(shape('nothing here', 'somewhere')).toBe('nothing here');
  });
});
