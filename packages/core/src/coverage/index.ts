export { EVERYWHERE, reachOf, type Reach } from './reach.ts';
export { joinStretches, stretchesOf, type Stretch } from './stretches.ts';
