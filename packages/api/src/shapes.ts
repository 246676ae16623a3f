import type { Iso, LevelName, NumberSpread, WeightName } from './index.ts';
import type { DifferenceKind as ShapeKind } from '@fadenweg/core/different';

export type { ShapeKind };

/** The time before, the same hours of earlier days, another time, another environment, the other hosts. */
export type ShapeBaseline = 'before' | 'days' | 'window' | 'environment' | 'host';
/** A shape that is said otherwise than before; near twins are one. */
export interface DifferentShape {
  component: string;
  /** Its words, what varies as ‹›. With the component it tells it from all others. */
  text: string;
  /** So many shapes are one in it. */
  twins: number;
  /** The highest that it came with. */
  level: LevelName;
  /** By its level and words; new trouble is a step graver. */
  weight: WeightName;
  kind: ShapeKind;
  count: number;
  /** How often usually, in a window as long, after what shifted as a whole. */
  expected: number;
  chance: number;
  /** New, and only once or twice. */
  few: boolean;
  firstAt: Iso | null;
  /** Why somebody tolerates that it is so; null where nobody does. */
  tolerated: string | null;
}
export interface DifferentShapes {
  items: DifferentShape[];
  more: number;
  /** Left out, as they are tolerated. */
  tolerated: number;
  /** Of so many shapes of the window. */
  shapes: number;
  records: number;
  /** Most of what is said came so many times as often; null where it did not. */
  shift: number | null;
  /** Compared with so many stretches as long, from when on. */
  stretches: number;
  since: Iso | null;
  /** Whole ten minutes are counted: the window as it was looked at. */
  from: Iso;
  to: Iso;
}
/** A parameter of a shape, by some of its latest records. */
export interface ShapeParameter {
  /** Of its ‹›, from 0. */
  place: number;
  kind: 'number' | 'with unit' | 'time' | 'address' | 'identifier' | 'quoted' | 'word';
  /** Under which it is a field of searches; '' where nobody gave it one. */
  name: string;
  /** What it could be called. */
  proposed: string;
  values: { value: string; count: number }[];
  distinct: number;
  /** Where nearly all are numbers. */
  numbers: NumberSpread | null;
}
/** One shape in a window and as long before it. */
export interface ShapeDetail {
  component: string;
  text: string;
  level: LevelName;
  weight: WeightName;
  slotMs: number;
  /** Where each piece begins, and how often it was said in it. */
  pieces: { at: Iso; count: number }[];
  /** Shapes that are one in it, the most frequent first. */
  twins: { text: string; count: number }[];
  /** Whether a person said that they are one. */
  byHand: boolean;
  parameters: ShapeParameter[];
  /** So many of its latest records were looked at; so many strands pass these. */
  looked: number;
  strands: number;
  failed: number;
  /** Which share of all strands of their flows fails in the window. */
  usuallyFailed: number;
  flows: { flow: string; label: string; strands: number }[];
}
export interface ShapeHandBody {
  component: string;
  text: string;
  /** What fits it is one, or stands apart; null takes it back. */
  is: 'one' | 'apart' | null;
}
export interface ShapeParameterBody {
  component: string;
  text: string;
  place: number;
  /** '' takes it away. */
  name: string;
}
export interface ShapeSaidBody {
  component: string;
  text: string;
  kind: ShapeKind;
  /** Why it is tolerated; null takes it back. */
  note: string | null;
}
