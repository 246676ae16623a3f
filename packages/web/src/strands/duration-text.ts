import { durationWords } from '@fadenweg/core';
export const ms = (value: number): string => durationWords(value * 1000);
