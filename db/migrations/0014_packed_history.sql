PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_revisions` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`parent_id` text,
	`sequence` integer NOT NULL,
	`label` text NOT NULL,
	`snapshot` text,
	`packed` blob,
	`basis_id` text,
	`depth` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
INSERT INTO `__new_revisions`("id", "tune_id", "parent_id", "sequence", "label", "snapshot", "packed", "basis_id", "depth", "version", "created_at") SELECT "id", "tune_id", "parent_id", "sequence", "label", "snapshot", NULL, NULL, 0, "version", "created_at" FROM `revisions`;--> statement-breakpoint
DROP TABLE `revisions`;--> statement-breakpoint
ALTER TABLE `__new_revisions` RENAME TO `revisions`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE INDEX `revisions_of_tune` ON `revisions` (`tune_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `revisions_by_parent` ON `revisions` (`parent_id`);--> statement-breakpoint
CREATE INDEX `revisions_by_basis` ON `revisions` (`basis_id`);