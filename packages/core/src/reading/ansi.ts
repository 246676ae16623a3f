const SEQUENCE = /\x1b(?:\[[0-?]*[ -/]*[@-~]|\][^\x07\x1b]*(?:\x07|\x1b\\)|[@-Z\\-_])/g;

/** Text without the control sequences for colours and cursors that programs write to terminals (ECMA-48). */
export const withoutColours = (text: string): string => text.replace(SEQUENCE, '');
