CREATE TABLE `batch` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`stock_id` integer NOT NULL,
	`label` text NOT NULL,
	`begun_at` integer NOT NULL,
	FOREIGN KEY (`stock_id`) REFERENCES `stock`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `batch_label` ON `batch` (`stock_id`,`label`);--> statement-breakpoint
CREATE TABLE `event` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`kind` text NOT NULL,
	`note` text NOT NULL,
	`happened_at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `fitting` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`part_id` integer NOT NULL,
	`fitted_from` integer NOT NULL,
	`fitted_to` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `fitting_of` ON `fitting` (`machine_id`,`fitted_from`);--> statement-breakpoint
CREATE TABLE `gauge` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `gauge_key_unique` ON `gauge` (`key`);--> statement-breakpoint
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
CREATE TABLE `gauge_revision` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`gauge_id` integer NOT NULL,
	`spec` text NOT NULL,
	`valid_from` integer NOT NULL,
	FOREIGN KEY (`gauge_id`) REFERENCES `gauge`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `holder` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`name` text NOT NULL,
	`role` text NOT NULL,
	`archived_at` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `holder_name` ON `holder` (`machine_id`,`name`);--> statement-breakpoint
CREATE TABLE `learned` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`owner` text NOT NULL,
	`key` text NOT NULL,
	`value` real NOT NULL,
	`trial_id` integer NOT NULL,
	`learned_at` integer NOT NULL,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `ledger_entry` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`owner` text NOT NULL,
	`setting` text NOT NULL,
	`holder_id` integer,
	`value` text,
	`unit` text NOT NULL,
	`u` real,
	`origin` text NOT NULL,
	`solution_id` integer,
	`trial_id` integer,
	`read_back` integer NOT NULL,
	`note` text NOT NULL,
	`entered_at` integer NOT NULL,
	`undone_at` integer,
	FOREIGN KEY (`holder_id`) REFERENCES `holder`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`solution_id`) REFERENCES `solution`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `ledger_by_setting` ON `ledger_entry` (`owner`,`setting`,`holder_id`,`entered_at`);--> statement-breakpoint
CREATE TABLE `machine` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`slug` text NOT NULL,
	`created_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `machine_slug_unique` ON `machine` (`slug`);--> statement-breakpoint
CREATE TABLE `machine_revision` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`spec` text NOT NULL,
	`valid_from` integer NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `machine_revision_of` ON `machine_revision` (`machine_id`,`valid_from`);--> statement-breakpoint
CREATE TABLE `part` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text DEFAULT 'optic' NOT NULL,
	`label` text NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `part_label_unique` ON `part` (`label`);--> statement-breakpoint
CREATE TABLE `part_revision` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`part_id` integer NOT NULL,
	`spec` text NOT NULL,
	`valid_from` integer NOT NULL,
	FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `picture` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`name` text NOT NULL,
	`sha256` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`x_dpi` real,
	`y_dpi` real,
	`scale` text,
	`grey` blob NOT NULL,
	`added_at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `picture_of` ON `picture` (`round_id`);--> statement-breakpoint
CREATE TABLE `practice_burn` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`file` text NOT NULL,
	`marks` text NOT NULL,
	`burned_at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `practice_machine` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`truth` text NOT NULL,
	`controller` text NOT NULL,
	`revealed_at` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `practice_machine_machine_id_unique` ON `practice_machine` (`machine_id`);--> statement-breakpoint
CREATE TABLE `put_back` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`what` text NOT NULL,
	`opened_at` integer NOT NULL,
	`closed_at` integer,
	`round_id` integer,
	`setting` text,
	`ledger_entry_id` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`ledger_entry_id`) REFERENCES `ledger_entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `reading` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`session_id` integer NOT NULL,
	`site` text NOT NULL,
	`raw` text NOT NULL,
	`answer` text NOT NULL,
	`client_key` text NOT NULL,
	`taken_back_at` integer,
	`taken_at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`session_id`) REFERENCES `session`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `reading_client_key_unique` ON `reading` (`client_key`);--> statement-breakpoint
CREATE INDEX `reading_of` ON `reading` (`round_id`,`site`);--> statement-breakpoint
CREATE INDEX `reading_taken` ON `reading` (`taken_at`);--> statement-breakpoint
CREATE TABLE `round` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`trial_id` integer NOT NULL,
	`n` integer NOT NULL,
	`purpose` text NOT NULL,
	`draft` text NOT NULL,
	`plan` text,
	`spec` text,
	`in_force` text,
	`read_back_at` integer,
	`burned_at` integer,
	`more` text DEFAULT '{}' NOT NULL,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `round_n` ON `round` (`trial_id`,`n`);--> statement-breakpoint
CREATE TABLE `session` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`gauge_revision_id` integer NOT NULL,
	`zero_outside_mm` real NOT NULL,
	`zero_inside_mm` real,
	`begun_at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`gauge_revision_id`) REFERENCES `gauge_revision`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `solution` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`engine_version` text NOT NULL,
	`input_hash` text NOT NULL,
	`result` text NOT NULL,
	`solved_at` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `stock` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`slug` text NOT NULL,
	`created_at` integer NOT NULL,
	`archived_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stock_slug_unique` ON `stock` (`slug`);--> statement-breakpoint
CREATE TABLE `stock_result` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`batch_id` integer NOT NULL,
	`machine_id` integer,
	`trial_id` integer,
	`round_id` integer,
	`solution_id` integer,
	`result` text NOT NULL,
	`note` text NOT NULL,
	`kept_at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`batch_id`) REFERENCES `batch`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`solution_id`) REFERENCES `solution`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `stock_result_of` ON `stock_result` (`batch_id`);--> statement-breakpoint
CREATE INDEX `stock_result_trial` ON `stock_result` (`trial_id`);--> statement-breakpoint
CREATE TABLE `stock_revision` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`stock_id` integer NOT NULL,
	`spec` text NOT NULL,
	`valid_from` integer NOT NULL,
	FOREIGN KEY (`stock_id`) REFERENCES `stock`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `stock_revision_of` ON `stock_revision` (`stock_id`,`valid_from`);--> statement-breakpoint
CREATE TABLE `thickness_reading` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`batch_id` integer NOT NULL,
	`raw` text NOT NULL,
	`value_mm` real NOT NULL,
	`gauge_revision_id` integer,
	`client_key` text NOT NULL,
	`taken_at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`batch_id`) REFERENCES `batch`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`gauge_revision_id`) REFERENCES `gauge_revision`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `thickness_reading_client_key_unique` ON `thickness_reading` (`client_key`);--> statement-breakpoint
CREATE INDEX `thickness_of` ON `thickness_reading` (`batch_id`);--> statement-breakpoint
CREATE TABLE `trial` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`procedure` text NOT NULL,
	`procedure_version` integer NOT NULL,
	`machine_revision_id` integer NOT NULL,
	`code` text NOT NULL,
	`tolerance` real NOT NULL,
	`decisions` text NOT NULL,
	`begun_at` integer NOT NULL,
	`ended_at` integer,
	`end` text,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`machine_revision_id`) REFERENCES `machine_revision`(`id`) ON UPDATE no action ON DELETE no action,
	CONSTRAINT "trial_tolerance" CHECK("trial"."tolerance" > 0)
);
--> statement-breakpoint
CREATE UNIQUE INDEX `trial_code_unique` ON `trial` (`code`);--> statement-breakpoint
CREATE INDEX `trial_of` ON `trial` (`machine_id`,`procedure`);--> statement-breakpoint
CREATE TABLE `verdict` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`trial_id` integer NOT NULL,
	`round_id` integer NOT NULL,
	`result` text NOT NULL,
	`accepted_at` integer NOT NULL,
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`round_id`) REFERENCES `round`(`id`) ON UPDATE no action ON DELETE no action
);
