export { proverOf } from './recall/prove.ts';
