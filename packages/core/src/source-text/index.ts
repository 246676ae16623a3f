export { fileOfFrame, fileOfLogger, type Called } from './frame-place.ts';
export { lineOfMessage } from './message-place.ts';
