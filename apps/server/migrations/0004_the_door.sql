CREATE TABLE `guest_links` (
	`id` text PRIMARY KEY NOT NULL,
	`course` text NOT NULL,
	`token` text NOT NULL,
	`guest` text NOT NULL,
	`made_at` integer NOT NULL,
	`device` text,
	`ended_at` integer,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `guest_links_token_unique` ON `guest_links` (`token`);--> statement-breakpoint
CREATE INDEX `guest_links_by_course` ON `guest_links` (`course`);--> statement-breakpoint
CREATE TABLE `known_devices` (
	`course` text NOT NULL,
	`device` text NOT NULL,
	`name` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`course`, `device`),
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `courses` ADD `door` text DEFAULT 'ask' NOT NULL;--> statement-breakpoint
ALTER TABLE `courses` ADD `retired_at` integer;--> statement-breakpoint
ALTER TABLE `people` ADD `door` text DEFAULT 'in' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `device` text;--> statement-breakpoint
ALTER TABLE `people` ADD `guest` text;