export * from './surface';
export * from './dab';
export * from './strokeSpan';
export * from './renew';
