/**
 * How sure findings are, as the share of them that name the right component. In made-up worlds with known truth they are right a little more often than is said here
 * (docs/accuracy.md); what is left is for worlds that go otherwise.
 */
export const SURE = 0.96;
/** Several records compete, or a number alone tells it. */
export const LIKELY = 0.9;
/** Nobody knows what should have followed. */
export const MAYBE = 0.6;
/** It may well have gone on unseen. */
export const UNSEEN = 0.5;
