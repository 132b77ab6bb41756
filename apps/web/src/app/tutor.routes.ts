import type { Routes } from '@angular/router';
import { TutorFrame } from './shell/tutor-frame';

export const tutorRoutes: Routes = [
  {
    path: '',
    component: TutorFrame,
    children: [
      {
        path: '',
        loadComponent: () => import('./courses/today-screen/today').then((m) => m.TodayScreen),
      },
      {
        path: 'courses/:course',
        loadComponent: () => import('./courses/course-screen/course').then((m) => m.CourseScreen),
      },
      {
        path: 'boards/:board',
        loadComponent: () => import('./lesson/board-screen/board').then((m) => m.BoardScreen),
      },
      {
        path: 'materials',
        loadComponent: () => import('./materials/screen/materials').then((m) => m.MaterialsScreen),
      },
      {
        path: 'records',
        loadComponent: () =>
          import('./records/records-screen/records').then((m) => m.RecordsScreen),
      },
      {
        path: 'week',
        loadComponent: () => import('./courses/week-screen/week').then((m) => m.WeekScreen),
      },
      {
        path: 'hours',
        loadComponent: () => import('./courses/hours-screen/hours').then((m) => m.HoursScreen),
      },
      {
        path: 'mailbox',
        loadComponent: () => import('./account/mailbox/mailbox').then((m) => m.MailboxScreen),
      },
      {
        path: 'account',
        loadComponent: () =>
          import('./account/account-screen/account').then((m) => m.AccountScreen),
      },
      {
        path: 'records/:lesson',
        loadComponent: () => import('./records/record-screen/record').then((m) => m.RecordScreen),
      },
    ],
  },
];
