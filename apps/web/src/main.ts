import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { isLineThin } from './app/browser/thin-line';
import { Root } from './app/root';

// Over a thin line words are in a font that is there: what they say comes first.
document.documentElement.classList.toggle('own-fonts', !isLineThin());

// `browser-check.js` has told already what to do then.
if (!document.documentElement.hasAttribute('data-too-old'))
  bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));
