export * from './table';
export * from './drills';
export * from './threads';
export * from './materials';
export * from './crib';
export * from './stockSizes';
export * from './fits';
export * from './generalTolerances';
