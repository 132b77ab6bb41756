export * from './write-webvtt.js';
