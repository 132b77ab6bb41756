CREATE TABLE `caption_writers` (
	`lesson` text PRIMARY KEY NOT NULL,
	`person` text NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `captions` (
	`id` text PRIMARY KEY NOT NULL,
	`lesson` text NOT NULL,
	`by` text NOT NULL,
	`text` text NOT NULL,
	`from_at` integer NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `captions_by_lesson` ON `captions` (`lesson`);