export type { Cut, Draft, Reader, RecordReader, ReadingContext, Sample, Fields, FieldValue } from '../types.ts';
export type { Level } from '../../units.ts';
