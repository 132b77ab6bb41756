import type { Routes } from '@angular/router';
import { TutorFrame } from './screens/tutor-frame';

export const tutorRoutes: Routes = [
  {
    path: '',
    component: TutorFrame,
    children: [
      {
        path: '',
        loadComponent: () => import('./screens/today/today').then((m) => m.TodayScreen),
      },
      {
        path: 'courses/:course',
        loadComponent: () => import('./screens/course/course').then((m) => m.CourseScreen),
      },
      {
        path: 'boards/:board',
        loadComponent: () => import('./screens/board/board').then((m) => m.BoardScreen),
      },
      {
        path: 'materials',
        loadComponent: () => import('./screens/materials/materials').then((m) => m.MaterialsScreen),
      },
      {
        path: 'records',
        loadComponent: () => import('./screens/records/records').then((m) => m.RecordsScreen),
      },
      {
        path: 'week',
        loadComponent: () => import('./screens/week/week').then((m) => m.WeekScreen),
      },
      {
        path: 'hours',
        loadComponent: () => import('./screens/hours/hours').then((m) => m.HoursScreen),
      },
      {
        path: 'mailbox',
        loadComponent: () => import('./screens/mailbox/mailbox').then((m) => m.MailboxScreen),
      },
      {
        path: 'account',
        loadComponent: () => import('./screens/account/account').then((m) => m.AccountScreen),
      },
      {
        path: 'records/:lesson',
        loadComponent: () => import('./screens/record/record').then((m) => m.RecordScreen),
      },
    ],
  },
];
