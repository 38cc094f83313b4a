ALTER TABLE `arrangements` ADD `chord_melody` text DEFAULT '{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}' NOT NULL;--> statement-breakpoint
ALTER TABLE `charts` ADD `melody` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `charts` ADD `phrases` text DEFAULT '{}' NOT NULL;