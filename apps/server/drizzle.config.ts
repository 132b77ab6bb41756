import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'sqlite',
  schema: './dist/**/tables.js',
  out: './migrations',
});
