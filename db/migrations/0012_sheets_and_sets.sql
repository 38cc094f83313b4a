CREATE TABLE `layouts` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`name` text NOT NULL,
	`layout` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `layouts_of_tune` ON `layouts` (`tune_id`,`deleted_at`);--> statement-breakpoint
CREATE TABLE `set_tunes` (
	`id` text PRIMARY KEY NOT NULL,
	`set_id` text NOT NULL,
	`tune_id` text,
	`title` text NOT NULL,
	`place` integer NOT NULL,
	`key` text,
	`tempo` integer,
	`version` text,
	`note` text DEFAULT '' NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`set_id`) REFERENCES `sets`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `tunes_of_set` ON `set_tunes` (`set_id`,`place`);--> statement-breakpoint
CREATE TABLE `sets` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`touched_at` integer NOT NULL,
	`deleted_at` integer
);
