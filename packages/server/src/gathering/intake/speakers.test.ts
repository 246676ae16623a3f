import { describe, expect, test } from '@jest/globals';
import { Speakers } from './speakers.ts';

describe('who speaks in a source', () => {
  test('is told once, and no more than so many', () => {
    const speakers = new Speakers();
    for (const [component, host] of [['desk', 'lw-1'], ['desk', 'lw-1'], ['', ''], ['desk', 'lw-2'], ['desk', 'lw-1']] as const) speakers.note(component, host); // prettier-ignore
    expect(speakers.take()).toEqual([{ component: 'desk', host: 'lw-1' }, { component: '', host: '' }, { component: 'desk', host: 'lw-2' }]); // prettier-ignore
    speakers.note('desk', 'lw-2');
    expect(speakers.take()).toEqual([]);
    for (let i = 0; i < 1000; i++) speakers.note(`desk-${i}`, '');
    expect(speakers.take()).toHaveLength(497);
  });
});
