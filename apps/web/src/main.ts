import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { Root } from './app/root';

// `browser-check.js` has told already what to do then.
if (!document.documentElement.hasAttribute('data-too-old'))
  bootstrapApplication(Root, appConfig).catch((error: unknown) => console.error(error));
