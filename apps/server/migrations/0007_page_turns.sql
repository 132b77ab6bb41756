CREATE TABLE `page_turns` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`lesson` text NOT NULL,
	`person` text NOT NULL,
	`page` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `page_turns_by_lesson` ON `page_turns` (`lesson`);