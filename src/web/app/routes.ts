import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'bench' },
  {
    path: 'bench',
    title: 'Bench · Sediment',
    loadComponent: () => import('./features/bench/bench').then((m) => m.Bench),
  },
  {
    path: 'new-run',
    title: 'New run · Sediment',
    loadComponent: () => import('./features/new-run/new-run').then((m) => m.NewRun),
  },
  { path: 'gear', title: 'Gear · Sediment', loadComponent: () => import('./features/gear/gear').then((m) => m.Gear) },
  {
    path: 'gear/:id',
    title: 'Unit · Sediment',
    loadComponent: () => import('./features/unit/unit').then((m) => m.Unit),
  },
  {
    path: 'takes/:id',
    title: 'Take · Sediment',
    loadComponent: () => import('./features/take/take').then((m) => m.Take),
  },
  {
    path: 'ranking',
    title: 'Ranking · Sediment',
    loadComponent: () => import('./features/ranking/ranking').then((m) => m.Ranking),
  },
  {
    path: '**',
    title: 'Not found · Sediment',
    loadComponent: () => import('./features/not-found/not-found').then((m) => m.NotFound),
  },
];
