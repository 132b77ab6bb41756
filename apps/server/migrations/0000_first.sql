CREATE TABLE `sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sessions_by_tutor` ON `sessions` (`tutor`);--> statement-breakpoint
CREATE TABLE `tutors` (
	`id` text PRIMARY KEY NOT NULL,
	`email` text NOT NULL,
	`name` text NOT NULL,
	`password_hash` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tutors_email_unique` ON `tutors` (`email`);--> statement-breakpoint
CREATE TABLE `boards` (
	`num` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`course` text NOT NULL,
	`title` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `boards_id_unique` ON `boards` (`id`);--> statement-breakpoint
CREATE INDEX `boards_by_course` ON `boards` (`course`);--> statement-breakpoint
CREATE TABLE `operations` (
	`board` integer NOT NULL,
	`seq` integer NOT NULL,
	`id` text NOT NULL,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	`lesson` text,
	`kind` text NOT NULL,
	`page` text,
	`body` blob NOT NULL,
	PRIMARY KEY(`board`, `seq`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `courses` (
	`id` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`name` text NOT NULL,
	`link_token` text NOT NULL,
	`join_code` text NOT NULL,
	`weekday` integer,
	`starts_at` text,
	`minutes` integer,
	`zone` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `courses_link_token_unique` ON `courses` (`link_token`);--> statement-breakpoint
CREATE UNIQUE INDEX `courses_join_code_unique` ON `courses` (`join_code`);--> statement-breakpoint
CREATE INDEX `courses_by_tutor` ON `courses` (`tutor`);--> statement-breakpoint
CREATE TABLE `board_files` (
	`board` text NOT NULL,
	`hash` text NOT NULL,
	`name` text NOT NULL,
	`pages` integer NOT NULL,
	PRIMARY KEY(`board`, `hash`),
	FOREIGN KEY (`hash`) REFERENCES `files`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `board_files_by_hash` ON `board_files` (`hash`);--> statement-breakpoint
CREATE TABLE `files` (
	`hash` text PRIMARY KEY NOT NULL,
	`bytes` integer NOT NULL,
	`type` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `lessons` (
	`id` text PRIMARY KEY NOT NULL,
	`course` text NOT NULL,
	`board` text NOT NULL,
	`opened_at` integer NOT NULL,
	`closed_at` integer,
	`alive_at` integer NOT NULL,
	FOREIGN KEY (`course`) REFERENCES `courses`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `lessons_by_course` ON `lessons` (`course`);--> statement-breakpoint
CREATE UNIQUE INDEX `one_open_lesson_a_course` ON `lessons` (`course`) WHERE closed_at is null;--> statement-breakpoint
CREATE TABLE `people` (
	`id` text NOT NULL,
	`lesson` text NOT NULL,
	`name` text NOT NULL,
	`nth` integer NOT NULL,
	`role` text NOT NULL,
	`trust` text NOT NULL,
	`arrived_at` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_by_lesson` ON `people` (`lesson`,`id`);--> statement-breakpoint
CREATE TABLE `spans` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`lesson` text NOT NULL,
	`person` text NOT NULL,
	`from_at` integer NOT NULL,
	`to_at` integer,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `spans_by_lesson` ON `spans` (`lesson`);--> statement-breakpoint
CREATE TABLE `records` (
	`lesson` text PRIMARY KEY NOT NULL,
	`sealed_at` integer NOT NULL,
	`title` text NOT NULL,
	`page_count` integer NOT NULL,
	`board` text NOT NULL,
	`seq` integer NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
