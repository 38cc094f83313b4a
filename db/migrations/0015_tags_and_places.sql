ALTER TABLE `tunes` ADD `tags` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `tunes` ADD `place` text;