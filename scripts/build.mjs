import { buildServer, buildSite, install } from './steps.mjs';

install();
buildServer();
buildSite();
