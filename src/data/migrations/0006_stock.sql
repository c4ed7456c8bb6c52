CREATE TABLE `batch` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`stock_id` integer NOT NULL,
	`label` text NOT NULL,
	`begun_at` integer NOT NULL,
	FOREIGN KEY (`stock_id`) REFERENCES `stock`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `batch_label` ON `batch` (`stock_id`,`label`);--> statement-breakpoint
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
CREATE INDEX `thickness_of` ON `thickness_reading` (`batch_id`);