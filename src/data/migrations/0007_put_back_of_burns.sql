ALTER TABLE `put_back` ADD `round_id` integer REFERENCES round(id);--> statement-breakpoint
ALTER TABLE `put_back` ADD `setting` text;--> statement-breakpoint
ALTER TABLE `put_back` ADD `ledger_entry_id` integer REFERENCES ledger_entry(id);