CREATE TABLE `goals` (
	`tune_id` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`tempo` real,
	`wanted` integer NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`tune_id`, `kind`, `item`),
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `passes` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text,
	`title` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`from_bar` integer,
	`to_bar` integer,
	`key` text,
	`tempo` real,
	`goal` real,
	`grade` text NOT NULL,
	`seconds` real NOT NULL,
	`at` integer NOT NULL,
	`day` integer NOT NULL,
	`zone` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`hurt` integer DEFAULT false NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `passes_by_day` ON `passes` (`deleted_at`,`day`,`at`);--> statement-breakpoint
CREATE INDEX `passes_of_item` ON `passes` (`tune_id`,`kind`,`item`,`at`);--> statement-breakpoint
CREATE TABLE `practised` (
	`tune_id` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`due` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`tune_id`, `kind`, `item`)
);
--> statement-breakpoint
CREATE INDEX `practised_by_due` ON `practised` (`due`);