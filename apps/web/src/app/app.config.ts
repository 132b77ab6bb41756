import {
  ErrorHandler,
  inject,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import type { ApplicationConfig } from '@angular/core';
import {
  provideRouter,
  withComponentInputBinding,
  withNavigationErrorHandler,
} from '@angular/router';
import { routes } from './app.routes';
import { UnexpectedErrors } from './unexpected/unexpected-errors';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    { provide: ErrorHandler, useExisting: UnexpectedErrors },
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(({ error }) => inject(UnexpectedErrors).handleError(error)),
    ),
  ],
};
