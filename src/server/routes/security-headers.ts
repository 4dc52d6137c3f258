import helmet from 'helmet';
import type { RequestHandler } from 'express';

/**
 * What the page may do, for the browser to hold it to: everything from this server, nothing inline but styles (the
 * framework and the charts write them), WebAssembly for the kernels. Without HTTPS, what presupposes it stays off.
 */
export const securityHeaders = (): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'self'"],
        'script-src': ["'self'", "'wasm-unsafe-eval'"],
        'script-src-attr': ["'none'"],
        'worker-src': ["'self'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'font-src': ["'self'"],
        'media-src': ["'self'", 'blob:'],
        'connect-src': ["'self'", 'blob:', 'data:'],
        'object-src': ["'none'"],
        'base-uri': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
      },
    },
    referrerPolicy: { policy: 'no-referrer' },
    xFrameOptions: { action: 'deny' },
    crossOriginResourcePolicy: { policy: 'same-origin' },
    strictTransportSecurity: false,
    crossOriginOpenerPolicy: false,
    originAgentCluster: false,
  });
