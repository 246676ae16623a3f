export { storyOf, type Chapter } from './story.ts';
