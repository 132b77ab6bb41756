CREATE TABLE `deletions` (
	`id` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`number` integer NOT NULL,
	`at` integer NOT NULL,
	`report` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `deletions_by_tutor` ON `deletions` (`tutor`,`number`);