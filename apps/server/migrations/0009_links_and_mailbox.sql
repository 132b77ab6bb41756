CREATE TABLE `letters` (
	`id` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`to` text NOT NULL,
	`subject` text NOT NULL,
	`body` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `letters_by_tutor` ON `letters` (`tutor`,`at`);--> statement-breakpoint
CREATE TABLE `link_openings` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`link` text NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`lesson` text,
	`device` text NOT NULL,
	FOREIGN KEY (`link`) REFERENCES `record_links`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `link_openings_by_link` ON `link_openings` (`link`);--> statement-breakpoint
CREATE TABLE `record_links` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`course` text NOT NULL,
	`lesson` text,
	`for_whom` text NOT NULL,
	`email` text,
	`may` text NOT NULL,
	`names` text NOT NULL,
	`student` text,
	`until_at` integer NOT NULL,
	`made_at` integer NOT NULL,
	`withdrawn_at` integer,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `record_links_token_unique` ON `record_links` (`token`);--> statement-breakpoint
CREATE INDEX `record_links_by_course` ON `record_links` (`course`);