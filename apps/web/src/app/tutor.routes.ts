import type { Routes } from '@angular/router';
import { MainFrame } from './shell/main-frame';
import { TutorFrame } from './shell/tutor-frame';

/** The main screens, below their bar. */
const mainRoutes: Routes = [
  {
    path: '',
    title: 'Today',
    loadComponent: () => import('./courses/today-screen/today').then((m) => m.TodayScreen),
  },
  {
    path: 'week',
    title: 'Week',
    loadComponent: () => import('./courses/week-screen/week').then((m) => m.WeekScreen),
  },
  {
    path: 'courses/:course',
    loadComponent: () => import('./courses/course-screen/course').then((m) => m.CourseScreen),
  },
  {
    path: 'records',
    title: 'Records',
    loadComponent: () => import('./records/records-screen/records').then((m) => m.RecordsScreen),
  },
  {
    path: 'materials',
    title: 'Materials',
    loadComponent: () => import('./materials/screen/materials').then((m) => m.MaterialsScreen),
  },
  {
    path: 'hours',
    title: 'Hours',
    loadComponent: () => import('./courses/hours-screen/hours').then((m) => m.HoursScreen),
  },
  {
    path: 'mailbox',
    title: 'Mailbox',
    loadComponent: () => import('./account/mailbox/mailbox').then((m) => m.MailboxScreen),
  },
  {
    path: 'account',
    title: 'Account',
    loadComponent: () => import('./account/account-screen/account').then((m) => m.AccountScreen),
  },
];

export const tutorRoutes: Routes = [
  {
    path: '',
    component: TutorFrame,
    children: [
      {
        path: 'boards/:board',
        loadComponent: () => import('./lesson/board-screen/board').then((m) => m.BoardScreen),
      },
      {
        path: 'records/:lesson',
        loadComponent: () => import('./records/record-screen/record').then((m) => m.RecordScreen),
      },
      { path: '', component: MainFrame, children: mainRoutes },
    ],
  },
];
