CREATE TABLE `invitations` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`by` text NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`by`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `assets` (
	`id` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`folder` text,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`file` text NOT NULL,
	`pages` integer,
	`width` real NOT NULL,
	`height` real NOT NULL,
	`length` real NOT NULL,
	`looks` text,
	`removed_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`file`) REFERENCES `files`(`hash`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`looks`) REFERENCES `files`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `assets_by_tutor` ON `assets` (`tutor`);--> statement-breakpoint
CREATE INDEX `assets_by_file` ON `assets` (`file`);--> statement-breakpoint
CREATE TABLE `folder_shares` (
	`id` text PRIMARY KEY NOT NULL,
	`folder` text NOT NULL,
	`tutor` text,
	`course` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`folder`) REFERENCES `folders`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `folder_shares_once` ON `folder_shares` (`folder`,`tutor`,`course`);--> statement-breakpoint
CREATE INDEX `folder_shares_by_tutor` ON `folder_shares` (`tutor`);--> statement-breakpoint
CREATE INDEX `folder_shares_by_course` ON `folder_shares` (`course`);--> statement-breakpoint
CREATE TABLE `folders` (
	`id` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`parent` text,
	`name` text NOT NULL,
	`course` text,
	`removed_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `folders_by_tutor` ON `folders` (`tutor`);--> statement-breakpoint
ALTER TABLE `board_files` ADD `made_of` text;