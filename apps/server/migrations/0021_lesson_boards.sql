CREATE TABLE `lesson_boards` (
	`lesson` text NOT NULL,
	`board` text NOT NULL,
	`place` integer NOT NULL,
	`shown` integer DEFAULT true NOT NULL,
	PRIMARY KEY(`lesson`, `board`),
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `lesson_boards_by_board` ON `lesson_boards` (`board`);--> statement-breakpoint
INSERT INTO `lesson_boards` (`lesson`, `board`, `place`, `shown`) SELECT `id`, `board`, 0, 1 FROM `lessons`;--> statement-breakpoint
CREATE TABLE `record_boards` (
	`lesson` text NOT NULL,
	`place` integer NOT NULL,
	`board` text NOT NULL,
	`title` text NOT NULL,
	`seq` integer NOT NULL,
	PRIMARY KEY(`lesson`, `place`),
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `record_boards_by_board` ON `record_boards` (`board`);--> statement-breakpoint
INSERT INTO `record_boards` (`lesson`, `place`, `board`, `title`, `seq`) SELECT `lesson`, 0, `board`, `title`, `seq` FROM `records`;--> statement-breakpoint
ALTER TABLE `page_turns` ADD `board` text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE `page_turns` SET `board` = (SELECT `board` FROM `lessons` WHERE `lessons`.`id` = `page_turns`.`lesson`);--> statement-breakpoint
ALTER TABLE `late_lines` ADD `board` text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE `late_lines` SET `board` = (SELECT `board` FROM `lessons` WHERE `lessons`.`id` = `late_lines`.`lesson`);--> statement-breakpoint
ALTER TABLE `records` DROP COLUMN `board`;--> statement-breakpoint
ALTER TABLE `records` DROP COLUMN `seq`;--> statement-breakpoint
ALTER TABLE `lessons` DROP COLUMN `board`;
