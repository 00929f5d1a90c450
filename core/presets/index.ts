export * from './presets';
