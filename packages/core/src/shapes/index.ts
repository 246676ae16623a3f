export { measuresOf, tellingParts, withMeasures } from './measures.ts';
export { parameterKind, parameterReader, proposedNames, writtenParts, type ParameterKind } from './parameters.ts';
export { traitsOf } from './traits.ts';
export { shapeHash, shapeText } from './shape.ts';
export { fitting, groupTwins, type CorrectedShape, type SaidShape } from './twins.ts';
export { withoutNames } from './without-names.ts';
