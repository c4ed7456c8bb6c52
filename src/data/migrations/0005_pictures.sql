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
CREATE INDEX `picture_of` ON `picture` (`round_id`);