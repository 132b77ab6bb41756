import { inject } from '@angular/core';
import { Router } from '@angular/router';
import type { CanActivateFn, Routes } from '@angular/router';
import { Account } from './api/account';

const signedIn: CanActivateFn = async () => {
  const account = inject(Account);
  const router = inject(Router);
  return (await account.load()).tutor ? true : router.parseUrl('/sign-in');
};

/**
 * Students come in by /join, /door and /lesson, parents look at records by /shared; none of them loads any of the
 * tutor's code.
 */
export const routes: Routes = [
  {
    path: 'join',
    loadComponent: () => import('./screens/join/join').then((m) => m.JoinScreen),
  },
  {
    path: 'join/:link',
    loadComponent: () => import('./screens/join/join').then((m) => m.JoinScreen),
  },
  {
    path: 'door',
    loadComponent: () => import('./screens/door/door').then((m) => m.DoorScreen),
  },
  {
    path: 'lesson',
    loadComponent: () => import('./screens/lesson/lesson').then((m) => m.LessonScreen),
  },
  {
    path: 'shared/:token',
    loadComponent: () => import('./screens/shared/shared').then((m) => m.SharedScreen),
  },
  {
    path: 'sign-in',
    loadComponent: () => import('./screens/sign-in/sign-in').then((m) => m.SignInScreen),
  },
  {
    path: 'invited/:token',
    loadComponent: () => import('./screens/invited/invited').then((m) => m.InvitedScreen),
  },
  {
    path: '',
    canActivate: [signedIn],
    loadChildren: () => import('./tutor.routes').then((m) => m.tutorRoutes),
  },
  { path: '**', redirectTo: '' },
];
