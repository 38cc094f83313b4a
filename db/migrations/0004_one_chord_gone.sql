UPDATE `choices` SET `chords` = json_array(json_object('symbol', `symbol`, 'beats', 1));--> statement-breakpoint
ALTER TABLE `choices` DROP COLUMN `symbol`;
