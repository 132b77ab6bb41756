ALTER TABLE `operations` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `late_lines` ADD `version` integer DEFAULT 1 NOT NULL;