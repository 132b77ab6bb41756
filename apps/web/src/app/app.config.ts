import { provideHttpClient, withInterceptors, withNoXsrfProtection } from '@angular/common/http';
import {
  ErrorHandler,
  inject,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import type { ApplicationConfig } from '@angular/core';
import {
  provideRouter,
  TitleStrategy,
  withComponentInputBinding,
  withNavigationErrorHandler,
} from '@angular/router';
import { problems, signInAgain } from './api/interceptors';
import { routes } from './app.routes';
import { ScreenTitles } from './shell/screen-titles';
import { UnexpectedErrors } from './shell/unexpected/unexpected-errors';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideHttpClient(withInterceptors([signInAgain, problems]), withNoXsrfProtection()),
    { provide: ErrorHandler, useExisting: UnexpectedErrors },
    { provide: TitleStrategy, useClass: ScreenTitles },
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(({ error }) => inject(UnexpectedErrors).handleError(error)),
    ),
  ],
};
