CREATE TABLE `board_writers` (
	`board` text NOT NULL,
	`person` text NOT NULL,
	`name` text NOT NULL,
	`nth` integer NOT NULL,
	`role` text NOT NULL,
	PRIMARY KEY(`board`, `person`),
	FOREIGN KEY (`board`) REFERENCES `boards`(`id`) ON UPDATE no action ON DELETE no action
);
