CREATE TABLE `grips` (
	`id` text PRIMARY KEY NOT NULL,
	`frets` text NOT NULL,
	`symbol` text NOT NULL,
	`tags` text NOT NULL,
	`note` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
);
