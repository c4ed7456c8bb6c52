ALTER TABLE `picture` ADD `rgb` blob;--> statement-breakpoint
ALTER TABLE `picture` ADD `rgb_width` integer;--> statement-breakpoint
ALTER TABLE `picture` ADD `rgb_height` integer;