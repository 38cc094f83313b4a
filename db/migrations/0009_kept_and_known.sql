CREATE TABLE `writes` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`made` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `writes_by_time` ON `writes` (`at`);--> statement-breakpoint
ALTER TABLE `grips` ADD `instrument` text;--> statement-breakpoint
ALTER TABLE `revisions` ADD `version` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `tunes` ADD `summary` text;--> statement-breakpoint
ALTER TABLE `voicings` ADD `instrument` text;--> statement-breakpoint
ALTER TABLE `voicings` ADD `called` text;