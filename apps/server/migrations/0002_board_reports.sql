CREATE TABLE `board_reports` (
	`board` text PRIMARY KEY NOT NULL,
	`report` text NOT NULL,
	`seen_at` integer
);
