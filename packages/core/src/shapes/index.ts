export { measuresOf, tellingParts, withMeasures } from './measures.ts';
export { traitsOf } from './traits.ts';
export { shapeHash, shapeText } from './shape.ts';
export { withoutNames } from './without-names.ts';
