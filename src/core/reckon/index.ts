export * from './reckonings';
