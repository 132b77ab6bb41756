import { inject } from '@angular/core';
import { Router } from '@angular/router';
import type { CanActivateFn, Routes } from '@angular/router';
import { Account } from './api/account';
import { showTimesIn } from './ui/time/shown-zone';

const signedIn: CanActivateFn = async (_route, { url }) => {
  const account = inject(Account);
  const router = inject(Router);
  const { tutor } = await account.load();
  showTimesIn(tutor?.zone ?? null);
  if (tutor) return true;
  // And back to where they were on their way to.
  return router.createUrlTree(['/sign-in'], url === '/' ? {} : { queryParams: { to: url } });
};

/**
 * Students come in by /join, /door and /lesson, parents look at records by /shared; none of them loads any of the
 * tutor's code.
 */
export const routes: Routes = [
  {
    path: 'join',
    title: 'Join a lesson',
    loadComponent: () => import('./lesson/join-screen/join').then((m) => m.JoinScreen),
  },
  {
    path: 'join/:link',
    title: 'Join a lesson',
    loadComponent: () => import('./lesson/join-screen/join').then((m) => m.JoinScreen),
  },
  {
    path: 'door',
    title: 'At the door',
    loadComponent: () => import('./lesson/door-screen/door').then((m) => m.DoorScreen),
  },
  {
    path: 'lesson',
    loadComponent: () => import('./lesson/student-screen/lesson').then((m) => m.LessonScreen),
  },
  {
    path: 'shared/:token',
    title: 'Records shared with you',
    loadComponent: () => import('./records/shared-screen/shared').then((m) => m.SharedScreen),
  },
  {
    path: 'sign-in',
    title: 'Sign in',
    loadComponent: () => import('./account/sign-in/sign-in').then((m) => m.SignInScreen),
  },
  {
    path: 'forgot-password',
    title: 'Forgotten password',
    loadComponent: () => import('./account/forgot/forgot').then((m) => m.ForgotScreen),
  },
  ...['reset', 'reset/:token'].map((path) => ({
    path,
    title: 'New password',
    loadComponent: () => import('./account/reset/reset').then((m) => m.ResetScreen),
  })),
  {
    path: 'invited/:token',
    title: 'Invitation',
    loadComponent: () => import('./account/invited/invited').then((m) => m.InvitedScreen),
  },
  {
    path: '',
    canActivate: [signedIn],
    loadChildren: () => import('./tutor.routes').then((m) => m.tutorRoutes),
  },
  { path: '**', redirectTo: '' },
];
