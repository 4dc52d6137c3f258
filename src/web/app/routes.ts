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
    path: 'compare',
    title: 'Compare · Sediment',
    loadComponent: () => import('./features/compare/compare').then((m) => m.Compare),
  },
  {
    path: 'compare/:id',
    title: 'Compare · Sediment',
    loadComponent: () => import('./features/compare/compare').then((m) => m.Compare),
  },
  {
    path: 'listening',
    title: 'Listening · Sediment',
    loadComponent: () => import('./features/listening/tests').then((m) => m.Tests),
  },
  {
    path: 'listening/new',
    title: 'New listening test · Sediment',
    loadComponent: () => import('./features/listening/test-editor').then((m) => m.TestEditor),
  },
  {
    path: 'listening/words',
    title: 'Words · Sediment',
    loadComponent: () => import('./features/words/words').then((m) => m.Words),
  },
  {
    path: 'listening/:id',
    title: 'Listening test · Sediment',
    loadComponent: () => import('./features/listening/test').then((m) => m.Test),
  },
  { path: 'sums', title: 'Sums · Sediment', loadComponent: () => import('./features/sums/sums').then((m) => m.Sums) },
  {
    path: 'scale',
    title: 'Scale · Sediment',
    loadComponent: () => import('./features/scale/scale').then((m) => m.ScalePage),
  },
  {
    path: 'scale/place/:id',
    title: 'Place a unit · Sediment',
    loadComponent: () => import('./features/scale/place').then((m) => m.Place),
  },
  {
    path: 'listening/:id/panel',
    title: 'Live panel · Sediment',
    loadComponent: () => import('./features/listening/panel/panel-director').then((m) => m.PanelDirector),
  },
  {
    path: 'listen/screen/:key',
    title: 'Listening test',
    loadComponent: () => import('./features/sitting/room-screen').then((m) => m.RoomScreen),
  },
  {
    path: 'listen/join/:key',
    title: 'Listening test',
    loadComponent: () => import('./features/sitting/join').then((m) => m.Join),
  },
  {
    path: 'listen/:key',
    title: 'Listening test',
    loadComponent: () => import('./features/sitting/sitting').then((m) => m.Sitting),
  },
  {
    path: 'reviews',
    title: 'Reviews · Sediment',
    loadComponent: () => import('./features/reviews/reviews').then((m) => m.Reviews),
  },
  {
    path: 'reviews/house',
    title: 'How this desk reviews · Sediment',
    loadComponent: () => import('./features/reviews/house').then((m) => m.HousePage),
  },
  {
    path: 'reviews/:id',
    title: 'Review · Sediment',
    loadComponent: () => import('./features/reviews/review').then((m) => m.Review),
  },
  {
    path: 'ranking',
    title: 'Ranking · Sediment',
    loadComponent: () => import('./features/ranking/ranking').then((m) => m.Ranking),
  },
  {
    path: 'rules',
    title: 'Rules · Sediment',
    loadComponent: () => import('./features/rules/rules').then((m) => m.Rules),
  },
  {
    path: 'kinds',
    title: 'Kinds of gear · Sediment',
    loadComponent: () => import('./features/kinds/kinds').then((m) => m.Kinds),
  },
  {
    path: 'protocols',
    title: 'Protocols · Sediment',
    loadComponent: () => import('./features/protocols/protocols').then((m) => m.Protocols),
  },
  {
    path: 'protocols/new',
    title: 'New protocol · Sediment',
    loadComponent: () => import('./features/protocols/protocol-editor').then((m) => m.ProtocolEditor),
  },
  {
    path: 'protocols/:slug/:version/edit',
    title: 'Edit a protocol · Sediment',
    loadComponent: () => import('./features/protocols/protocol-editor').then((m) => m.ProtocolEditor),
  },
  {
    path: 'protocols/:slug/:version',
    title: 'Protocol · Sediment',
    loadComponent: () => import('./features/protocols/protocol').then((m) => m.ProtocolPage),
  },
  {
    path: 'archive',
    title: 'Archive · Sediment',
    loadComponent: () => import('./features/archive/archive').then((m) => m.Archive),
  },
  { path: 'rigs', title: 'Rigs · Sediment', loadComponent: () => import('./features/rigs/rigs').then((m) => m.Rigs) },
  {
    path: 'sessions',
    title: 'Sessions · Sediment',
    loadComponent: () => import('./features/sessions/sessions').then((m) => m.Sessions),
  },
  {
    path: 'sessions/new',
    title: 'Plan a session · Sediment',
    loadComponent: () => import('./features/sessions/plan-editor').then((m) => m.PlanEditor),
  },
  {
    path: 'sessions/:id/edit',
    title: 'Plan a session · Sediment',
    loadComponent: () => import('./features/sessions/plan-editor').then((m) => m.PlanEditor),
  },
  {
    path: 'sessions/:id/sheet',
    title: 'Sheet · Sediment',
    loadComponent: () => import('./features/sessions/sheet').then((m) => m.Sheet),
  },
  {
    path: 'sessions/:id/files/:slotId',
    title: 'Files · Sediment',
    loadComponent: () => import('./features/sessions/files').then((m) => m.Files),
  },
  {
    path: 'sessions/:id',
    title: 'Session · Sediment',
    loadComponent: () => import('./features/sessions/session').then((m) => m.SessionPage),
  },
  {
    path: 'days/:day',
    title: 'Day · Sediment',
    loadComponent: () => import('./features/sessions/day').then((m) => m.Day),
  },
  {
    path: 'booth/:id',
    title: 'Booth · Sediment',
    loadComponent: () => import('./features/booth/booth').then((m) => m.Booth),
  },
  {
    path: '**',
    title: 'Not found · Sediment',
    loadComponent: () => import('./features/not-found/not-found').then((m) => m.NotFound),
  },
];
