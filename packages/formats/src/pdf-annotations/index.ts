export * from './take.js';
export { AnnotationWriter } from './write.js';
