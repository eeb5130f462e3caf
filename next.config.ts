import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  serverExternalPackages: ['mysql2'],
  turbopack: { root: import.meta.dirname },
};

export default config;
