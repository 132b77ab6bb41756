CREATE TABLE `hand_over_fetches` (
	`hand_over` text NOT NULL,
	`device` text NOT NULL,
	`name` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`hand_over`, `device`),
	FOREIGN KEY (`hand_over`) REFERENCES `hand_overs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `hand_overs` (
	`id` text PRIMARY KEY NOT NULL,
	`course` text NOT NULL,
	`asset` text NOT NULL,
	`device` text,
	`name` text,
	`at` integer NOT NULL,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`asset`) REFERENCES `assets`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `hand_overs_by_course` ON `hand_overs` (`course`);--> statement-breakpoint
CREATE INDEX `hand_overs_by_device` ON `hand_overs` (`device`);--> statement-breakpoint
CREATE INDEX `hand_overs_by_asset` ON `hand_overs` (`asset`);