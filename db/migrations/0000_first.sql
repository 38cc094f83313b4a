CREATE TABLE `arrangements` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`chart_id` text NOT NULL,
	`name` text NOT NULL,
	`colour` integer NOT NULL,
	`bass` text NOT NULL,
	`style` text NOT NULL,
	`line` integer NOT NULL,
	`tempo` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`chart_id`) REFERENCES `charts`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `arrangements_of_tune` ON `arrangements` (`tune_id`);--> statement-breakpoint
CREATE TABLE `charts` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`name` text NOT NULL,
	`text` text NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `charts_of_tune` ON `charts` (`tune_id`);--> statement-breakpoint
CREATE TABLE `choices` (
	`arrangement_id` text NOT NULL,
	`slot` text NOT NULL,
	`symbol` text NOT NULL,
	`rule` text NOT NULL,
	PRIMARY KEY(`arrangement_id`, `slot`),
	FOREIGN KEY (`arrangement_id`) REFERENCES `arrangements`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `revisions` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`parent_id` text,
	`sequence` integer NOT NULL,
	`label` text NOT NULL,
	`snapshot` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `revisions_of_tune` ON `revisions` (`tune_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `revisions_by_parent` ON `revisions` (`parent_id`);--> statement-breakpoint
CREATE TABLE `tunes` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`created_at` integer NOT NULL,
	`touched_at` integer NOT NULL,
	`deleted_at` integer,
	`head` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `tunes_by_touch` ON `tunes` (`deleted_at`,`touched_at`);--> statement-breakpoint
CREATE TABLE `voicings` (
	`arrangement_id` text NOT NULL,
	`slot` text NOT NULL,
	`frets` text NOT NULL,
	`fixed` integer NOT NULL,
	PRIMARY KEY(`arrangement_id`, `slot`),
	FOREIGN KEY (`arrangement_id`) REFERENCES `arrangements`(`id`) ON UPDATE no action ON DELETE cascade
);
