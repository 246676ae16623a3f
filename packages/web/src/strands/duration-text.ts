import { durationWords } from '@fadenweg/core/findings';
export const ms = (value: number): string => durationWords(value * 1000);
