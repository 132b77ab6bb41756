CREATE TABLE `hour_corrections` (
	`id` text PRIMARY KEY NOT NULL,
	`lesson` text NOT NULL,
	`minutes` integer NOT NULL,
	`why` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `hour_corrections_by_lesson` ON `hour_corrections` (`lesson`);--> statement-breakpoint
CREATE TABLE `plan_changes` (
	`plan` text NOT NULL,
	`was` text NOT NULL,
	`now` text,
	`why` text DEFAULT '' NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`plan`, `was`),
	FOREIGN KEY (`plan`) REFERENCES `plans`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `plans` (
	`id` text PRIMARY KEY NOT NULL,
	`course` text NOT NULL,
	`topic` text DEFAULT '' NOT NULL,
	`start` text NOT NULL,
	`zone` text NOT NULL,
	`minutes` integer NOT NULL,
	`buffer` integer NOT NULL,
	`rule` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `plans_by_course` ON `plans` (`course`);--> statement-breakpoint
-- Weekly times of courses become plans of theirs, from the first such day after the course was made.
INSERT INTO `plans` (`id`, `course`, `start`, `zone`, `minutes`, `buffer`, `rule`, `created_at`)
SELECT `id`, `id`, date(`created_at` / 1000, 'unixepoch', 'weekday ' || (`weekday` % 7)) || 'T' || `starts_at`,
	`zone`, `minutes`, 10, 'FREQ=WEEKLY', `created_at`
FROM `courses` WHERE `weekday` IS NOT NULL AND `starts_at` IS NOT NULL AND `minutes` IS NOT NULL AND `zone` IS NOT NULL;
--> statement-breakpoint
ALTER TABLE `courses` DROP COLUMN `weekday`;--> statement-breakpoint
ALTER TABLE `courses` DROP COLUMN `starts_at`;--> statement-breakpoint
ALTER TABLE `courses` DROP COLUMN `minutes`;--> statement-breakpoint
ALTER TABLE `courses` DROP COLUMN `zone`;