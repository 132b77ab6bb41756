CREATE TABLE `chat_lines` (
	`id` text PRIMARY KEY NOT NULL,
	`lesson` text NOT NULL,
	`by` text NOT NULL,
	`to` text NOT NULL,
	`text` text NOT NULL,
	`at` integer NOT NULL,
	`emptied_at` integer,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `chat_lines_by_lesson` ON `chat_lines` (`lesson`);--> statement-breakpoint
CREATE TABLE `gestures` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`lesson` text NOT NULL,
	`person` text NOT NULL,
	`what` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `gestures_by_lesson` ON `gestures` (`lesson`);--> statement-breakpoint
ALTER TABLE `courses` ADD `rules` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `lessons` ADD `rules` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `lessons` ADD `lead` text;--> statement-breakpoint
ALTER TABLE `lessons` ADD `ends_at` integer;--> statement-breakpoint
ALTER TABLE `people` ADD `rules` text DEFAULT '{}' NOT NULL;