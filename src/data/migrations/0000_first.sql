CREATE TABLE `event` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`kind` text NOT NULL,
	`note` text NOT NULL,
	`happened_at` integer NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `fitting` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`machine_id` integer NOT NULL,
	`optic_id` integer NOT NULL,
	`fitted_from` integer NOT NULL,
	`fitted_to` integer,
	FOREIGN KEY (`machine_id`) REFERENCES `machine`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`optic_id`) REFERENCES `optic`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `gauge` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `gauge_key_unique` ON `gauge` (`key`);--> statement-breakpoint
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
CREATE TABLE `optic` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`label` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `optic_label_unique` ON `optic` (`label`);--> statement-breakpoint
CREATE TABLE `optic_revision` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`optic_id` integer NOT NULL,
	`spec` text NOT NULL,
	`valid_from` integer NOT NULL,
	FOREIGN KEY (`optic_id`) REFERENCES `optic`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
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
	FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `round_n` ON `round` (`trial_id`,`n`);--> statement-breakpoint
CREATE TABLE `session` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`round_id` integer NOT NULL,
	`gauge_revision_id` integer NOT NULL,
	`zero_mm` real NOT NULL,
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
