CREATE TABLE `password_resets` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`tutor` text NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`tutor`) REFERENCES `tutors`(`id`) ON UPDATE no action ON DELETE cascade
);
