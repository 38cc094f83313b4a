CREATE TABLE `likings` (
	`rule` text PRIMARY KEY NOT NULL,
	`times` integer NOT NULL,
	`last_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `arrangements` ADD `version` integer;--> statement-breakpoint
ALTER TABLE `arrangements` ADD `kept_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `choices` ADD `chords` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `choices` ADD `span` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `choices` ADD `made_at` integer DEFAULT 0 NOT NULL;