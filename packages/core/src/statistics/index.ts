export { contrast, type Contrast, type Counted } from './contrast.ts';
export { distribution, type Distribution } from './distribution.ts';
