ALTER TABLE `optic` RENAME TO `part`;--> statement-breakpoint
ALTER TABLE `optic_revision` RENAME TO `part_revision`;--> statement-breakpoint
ALTER TABLE `part_revision` RENAME COLUMN "optic_id" TO "part_id";--> statement-breakpoint
ALTER TABLE `fitting` RENAME COLUMN "optic_id" TO "part_id";--> statement-breakpoint
DROP INDEX `optic_label_unique`;--> statement-breakpoint
ALTER TABLE `part` ADD `kind` text DEFAULT 'optic' NOT NULL;--> statement-breakpoint
ALTER TABLE `part` ADD `archived_at` integer;--> statement-breakpoint
CREATE UNIQUE INDEX `part_label_unique` ON `part` (`label`);--> statement-breakpoint
CREATE INDEX `fitting_of` ON `fitting` (`machine_id`,`fitted_from`);--> statement-breakpoint
CREATE TABLE `gauge_fault` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`gauge_id` integer NOT NULL,
	`note` text NOT NULL,
	`wrong_since` integer,
	`found_at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`gauge_id`) REFERENCES `gauge`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `put_back` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`what` text NOT NULL,
	`opened_at` integer NOT NULL,
	`closed_at` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `event` ADD `taken_back_at` integer;--> statement-breakpoint
ALTER TABLE `gauge` ADD `archived_at` integer;--> statement-breakpoint
ALTER TABLE `holder` ADD `archived_at` integer;--> statement-breakpoint
UPDATE `machine_revision` SET `spec` = json_set(`spec`, '$.axes', json_object('home', 'not known', 'x', 'not known', 'y', 'not known'));--> statement-breakpoint
UPDATE `machine_revision` SET `spec` = json_set(`spec`, '$.held."scan offset".unit', 'mm', '$.held."scan offset".range', null) WHERE json_extract(`spec`, '$.held."scan offset"') IS NOT NULL;
