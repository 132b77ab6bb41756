export * from './names.js';
export * from './person-name.js';
