import type { NextConfig } from 'next';

const csp = [
  "default-src 'self'",
  // Next writes its own inline start-up script; wasm needs its own word.
  `script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'${process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''}`,
  "style-src 'self' 'unsafe-inline'", "img-src 'self' data: blob:", "font-src 'self' data:", "worker-src 'self' blob:", "connect-src 'self' ws://127.0.0.1:* ws://localhost:*", "frame-ancestors 'none'", "base-uri 'self'", "form-action 'self'", "object-src 'none'",
].join('; ');

const config: NextConfig = {
  serverExternalPackages: ['@electric-sql/pglite', 'replicad-opencascadejs', 'pdfmake', 'proper-lockfile'],
  devIndicators: false,
  poweredByHeader: false,
  allowedDevOrigins: ['127.0.0.1', 'localhost'],
  typescript: { ignoreBuildErrors: true }, // types are checked by their own command
  headers: async () => [{ source: '/:path*', headers: [{ key: 'content-security-policy', value: csp }, { key: 'x-content-type-options', value: 'nosniff' }, { key: 'referrer-policy', value: 'same-origin' }] }],
};
export default config;
