CREATE TABLE `late_lines` (
	`lesson` text NOT NULL,
	`id` text NOT NULL,
	`person` text NOT NULL,
	`number` integer NOT NULL,
	`page` text NOT NULL,
	`at` integer NOT NULL,
	`body` blob NOT NULL,
	`state` text DEFAULT 'waiting' NOT NULL,
	`told` integer DEFAULT false NOT NULL,
	PRIMARY KEY(`lesson`, `id`),
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `late_lines_by_person` ON `late_lines` (`person`);--> statement-breakpoint
ALTER TABLE `people` ADD `had_pen` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `people` SET `had_pen` = 1 WHERE `trust` <> 'look';