/*
 * How long a spec may take, in ms, in every suite that Jasmine runs by itself. Two suites run at once, some of them start
 * whole servers, LibreOffice or poppler, and a machine that many share stands still for a minute now and then: nothing is
 * wrong with a spec then.
 */
jasmine.DEFAULT_TIMEOUT_INTERVAL = 240_000;
