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
        path: 'records/:lesson',
        loadComponent: () => import('./screens/record/record').then((m) => m.RecordScreen),
      },
    ],
  },
];
