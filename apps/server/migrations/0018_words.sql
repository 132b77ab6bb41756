ALTER TABLE `people` RENAME COLUMN `nth` TO `name_ordinal`;--> statement-breakpoint
ALTER TABLE `board_writers` RENAME COLUMN `nth` TO `name_ordinal`;--> statement-breakpoint
ALTER TABLE `records` RENAME COLUMN `figures` TO `statistics`;--> statement-breakpoint
ALTER TABLE `assets` RENAME COLUMN `looks` TO `preview`;--> statement-breakpoint
UPDATE `people` SET `trust` = 'view' WHERE `trust` = 'look';--> statement-breakpoint
UPDATE `people` SET `rules` = json_set(`rules`, '$.trust', 'view') WHERE json_extract(`rules`, '$.trust') = 'look';--> statement-breakpoint
UPDATE `lessons` SET `rules` = json_set(`rules`, '$.trust', 'view') WHERE json_extract(`rules`, '$.trust') = 'look';--> statement-breakpoint
UPDATE `courses` SET `rules` = json_set(`rules`, '$.trust', 'view') WHERE json_extract(`rules`, '$.trust') = 'look';--> statement-breakpoint
UPDATE `record_links` SET `may` = 'view' WHERE `may` = 'look';--> statement-breakpoint
DROP INDEX `operations_nothing`;--> statement-breakpoint
UPDATE `operations` SET `kind` = 'tombstone' WHERE `kind` = 'nothing';--> statement-breakpoint
CREATE INDEX `operations_tombstones` ON `operations` (`board`,`seq`) WHERE kind = 'tombstone';
