export { Date } from './Date';
export * from './levels';
