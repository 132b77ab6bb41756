// Whole servers are started and stopped in these tests; a busy machine takes its time.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 30_000;
