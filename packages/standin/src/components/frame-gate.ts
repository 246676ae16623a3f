export const FRAME_GATE = 'frame-gate/frame-gate.log';
export const FRAME_PARTNER = 'frames.example';
