ALTER TABLE `charts` ADD `place` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `charts` ADD `shown` integer DEFAULT true NOT NULL;