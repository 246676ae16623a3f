export { seriesOf } from './files.ts';
export { SilentShapes, touchedBy, touchesIn, type DataKind, type Touch, type Touched, type Way } from './touched.ts';
