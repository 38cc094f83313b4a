CREATE TABLE `grip_uses` (
	`tune_id` text NOT NULL,
	`shape` text NOT NULL,
	PRIMARY KEY(`tune_id`, `shape`),
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `grip_uses_by_shape` ON `grip_uses` (`shape`);--> statement-breakpoint
ALTER TABLE `tunes` ADD `words` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `tunes` ADD `document` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `tunes` ADD `version` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
INSERT INTO `grip_uses` (`tune_id`, `shape`)
SELECT DISTINCT `arrangements`.`tune_id`, `voicings`.`frets`
FROM `voicings` JOIN `arrangements` ON `arrangements`.`id` = `voicings`.`arrangement_id`
WHERE `arrangements`.`version` IS NULL;--> statement-breakpoint
UPDATE `tunes` SET `words` = COALESCE((
	SELECT `text` || COALESCE((SELECT group_concat(char(10) || json_extract(`value`, '$.text'), '') FROM json_each(`charts`.`lyrics`)), '')
	FROM `charts` WHERE `charts`.`tune_id` = `tunes`.`id` AND `charts`.`shown`
), '');--> statement-breakpoint
-- What was made of a chart, as a document has it: an arrangement with its choices and grips.
CREATE TABLE `__made` AS
SELECT `id`, `tune_id`, `chart_id`, `name`, `version`, `kept_at`, `tempo`, json_object(
	'colour', `colour`, 'bass', `bass`, 'style', `style`, 'line', `line`,
	'conditions', json(`conditions`), 'leading', json(`leading`), 'chordMelody', json(`chord_melody`), 'rhythm', json(`rhythm`),
	'choices', (
		SELECT json_group_object(`slot`, json(`choice`)) FROM (
			SELECT `slot`, CASE WHEN `why` IS NULL THEN `plain` ELSE json_set(`plain`, '$.why', `why`) END AS `choice` FROM (
				SELECT `slot`, `why`, CASE WHEN `by` IS NULL THEN `base` ELSE json_set(`base`, '$.by', `by`) END AS `plain` FROM (
					SELECT `slot`, `by`, `why`, json_object('chords', json(`chords`), 'span', `span`, 'rule', `rule`, 'at', `made_at`) AS `base`
					FROM `choices` WHERE `arrangement_id` = `arrangements`.`id` ORDER BY `slot`
				)
			)
		)
	),
	'fixed', (SELECT json_group_object(`slot`, json(`frets`)) FROM `voicings` WHERE `arrangement_id` = `arrangements`.`id` AND `fixed`),
	'grips', (SELECT json_group_object(`slot`, json(`frets`)) FROM `voicings` WHERE `arrangement_id` = `arrangements`.`id`),
	'gripsOn', (SELECT json_group_object(`slot`, `instrument`) FROM `voicings` WHERE `arrangement_id` = `arrangements`.`id` AND `instrument` IS NOT NULL),
	'called', (SELECT json_group_object(`slot`, `called`) FROM `voicings` WHERE `arrangement_id` = `arrangements`.`id` AND `called` IS NOT NULL)
) AS `made`
FROM `arrangements`;--> statement-breakpoint
CREATE INDEX `__made_of_chart` ON `__made` (`chart_id`, `version`);--> statement-breakpoint
-- A chart with what is made of it and the versions kept.
CREATE TABLE `__whole` AS
SELECT `charts`.`tune_id`, `charts`.`place`, `charts`.`shown`, `__made`.`tempo`, json_set(`__made`.`made`,
	'$.name', `charts`.`name`, '$.text', `charts`.`text`,
	'$.melody', json(`charts`.`melody`), '$.phrases', json(`charts`.`phrases`), '$.lyrics', json(`charts`.`lyrics`),
	'$.versions', json((
		SELECT json_group_array(json(`kept`)) FROM (
			SELECT json_set(`made`, '$.name', `name`, '$.at', `kept_at`) AS `kept`
			FROM `__made` AS `versions` WHERE `versions`.`chart_id` = `charts`.`id` AND `version` IS NOT NULL ORDER BY `version`
		)
	))
) AS `chart`
FROM `charts` JOIN `__made` ON `__made`.`chart_id` = `charts`.`id` AND `__made`.`version` IS NULL;--> statement-breakpoint
CREATE INDEX `__whole_of_tune` ON `__whole` (`tune_id`, `place`);--> statement-breakpoint
UPDATE `tunes` SET `version` = 2, `document` = COALESCE((
	SELECT json_remove(json_set(`chart`,
		'$.title', `tunes`.`title`, '$.tempo', `tempo`,
		'$.chart', json_extract(`chart`, '$.name'),
		'$.at', (SELECT count(*) FROM `__whole` AS `before` WHERE `before`.`tune_id` = `tunes`.`id` AND `before`.`place` < `__whole`.`place`),
		'$.others', json((
			SELECT json_group_array(json(`chart`)) FROM (
				SELECT `chart` FROM `__whole` AS `others` WHERE `others`.`tune_id` = `tunes`.`id` AND NOT `others`.`shown` ORDER BY `place`
			)
		))
	), '$.name')
	FROM `__whole` WHERE `__whole`.`tune_id` = `tunes`.`id` AND `shown`
), json_object('title', `title`));--> statement-breakpoint
DROP TABLE `__made`;--> statement-breakpoint
DROP TABLE `__whole`;--> statement-breakpoint
DROP TABLE `voicings`;--> statement-breakpoint
DROP TABLE `choices`;--> statement-breakpoint
DROP TABLE `arrangements`;--> statement-breakpoint
DROP TABLE `charts`;
