import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
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
