import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { isLineThin } from './app/browser/thin-line';
import { Root } from './app/root';
import * as z from 'zod';

// What pages are allowed to run forbids code that is made of text: schemas are read as they are.
z.config({ jitless: true });

// Over a thin line words are in a font that is there: what they say comes first.
document.documentElement.classList.toggle('own-fonts', !isLineThin());

// `browser-check.js` has told already what to do then.
if (!document.documentElement.hasAttribute('data-too-old'))
  bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));
