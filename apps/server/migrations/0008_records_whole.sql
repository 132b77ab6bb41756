CREATE TABLE `record_notes` (
	`id` text PRIMARY KEY NOT NULL,
	`lesson` text NOT NULL,
	`kind` text NOT NULL,
	`text` text NOT NULL,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	`follows` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `record_notes_by_lesson` ON `record_notes` (`lesson`);--> statement-breakpoint
CREATE UNIQUE INDEX `one_note_follows_another` ON `record_notes` (`lesson`,`kind`,`follows`);--> statement-breakpoint
CREATE TABLE `record_words` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`lesson` text NOT NULL,
	`source` text NOT NULL,
	`page` text,
	`number` integer,
	`said` text NOT NULL,
	`tokens` text NOT NULL,
	FOREIGN KEY (`lesson`) REFERENCES `lessons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `record_words_by_lesson` ON `record_words` (`lesson`);--> statement-breakpoint
ALTER TABLE `records` ADD `whole_at` integer;--> statement-breakpoint
ALTER TABLE `records` ADD `figures` text;--> statement-breakpoint
CREATE VIRTUAL TABLE `record_index` USING fts5(tokens, content='record_words', content_rowid='id', tokenize='unicode61 remove_diacritics 0', prefix='2 3 4 5 6');--> statement-breakpoint
CREATE TRIGGER `record_words_added` AFTER INSERT ON `record_words` BEGIN
  INSERT INTO record_index (rowid, tokens) VALUES (new.id, new.tokens);
END;--> statement-breakpoint
CREATE TRIGGER `record_words_gone` AFTER DELETE ON `record_words` BEGIN
  INSERT INTO record_index (record_index, rowid, tokens) VALUES ('delete', old.id, old.tokens);
END;
