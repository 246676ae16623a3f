export { standsAt, type Lasting } from './stands-at.ts';
export { MARK, Marker, type Meaning, type MeaningRule } from './marks.ts';
export * from './types.ts';
export { arranged } from './arrange.ts';
export { excerptOf, excerptSql } from './excerpt.ts';
export { pathOf } from './path.ts';
export { spentOf, workedOf } from './spent.ts';
