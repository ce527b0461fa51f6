import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  // Types are checked by npm run check, which npm test begins with: whoever only starts the program need not wait for it.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: [
    "@mikro-orm/core",
    "@mikro-orm/postgresql",
    "@mikro-orm/migrations",
    "@mikro-orm/knex",
    "pg",
  ],
  outputFileTracingExcludes: { "*": [".data/**"] },
};

export default config;
