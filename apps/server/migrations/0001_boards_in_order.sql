ALTER TABLE `boards` ADD `place` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `boards` ADD `removed_at` integer;