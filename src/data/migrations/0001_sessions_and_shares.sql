ALTER TABLE `session` RENAME COLUMN `zero_mm` TO `zero_outside_mm`;--> statement-breakpoint
ALTER TABLE `session` ADD `zero_inside_mm` real;--> statement-breakpoint
ALTER TABLE `round` ADD `more` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
UPDATE `gauge_revision` SET `spec` = json_set(`spec`, '$.unit', 'mm') WHERE json_extract(`spec`, '$.unit') IS NULL;--> statement-breakpoint
UPDATE `reading` SET `answer` = json_set(`answer`, '$.session', CAST(`session_id` AS TEXT), '$.shares', json('{"common":1,"scatter":1}')) WHERE json_extract(`answer`, '$.session') IS NULL;--> statement-breakpoint
UPDATE `machine_revision` SET `spec` = json_set(`spec`, '$.recheckDays', json('{}')) WHERE json_extract(`spec`, '$.recheckDays') IS NULL;
