import { inject, provideAppInitializer, provideZonelessChangeDetection } from '@angular/core';
import { bootstrapApplication } from '@angular/platform-browser';
import { provideRouter, withComponentInputBinding, withInMemoryScrolling } from '@angular/router';
import { providePrimeNG } from 'primeng/config';
import { App } from './app/app';
import { KindData } from './app/data/kinds';
import { routes } from './app/routes';
import { sedimentPreset } from './app/theme-preset';

bootstrapApplication(App, {
  providers: [
    provideZonelessChangeDetection(),
    // A listener’s page asks for nothing that is the owner’s.
    ...(location.pathname.startsWith('/listen/') ? [] : [provideAppInitializer(() => inject(KindData).start())]),
    provideRouter(
      routes,
      withComponentInputBinding(),
      withInMemoryScrolling({ scrollPositionRestoration: 'top', anchorScrolling: 'enabled' }),
    ),
    providePrimeNG({
      theme: { preset: sedimentPreset, options: { darkModeSelector: '[data-theme="basalt"]', cssLayer: false } },
      ripple: false,
    }),
  ],
}).catch((error: unknown) => console.error(error));
