CREATE TABLE `media_over_time` (
	`id` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`hash` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`alt` text NOT NULL,
	`decorative` integer NOT NULL,
	`caption` text NOT NULL,
	`credit` text NOT NULL,
	`focus_x` integer NOT NULL,
	`focus_y` integer NOT NULL,
	`search` text NOT NULL,
	`author` text,
	PRIMARY KEY(`id`, `starts`)
);
--> statement-breakpoint
INSERT INTO `media_over_time` SELECT `id`, -8640000000000000, NULL, `hash`, `mime`, `bytes`, `width`, `height`, `alt`, 0, '', '', 50, 50, '', NULL FROM `media`;--> statement-breakpoint
DROP TABLE `media`;--> statement-breakpoint
ALTER TABLE `media_over_time` RENAME TO `media`;--> statement-breakpoint
CREATE INDEX `media_hash` ON `media` (`hash`);
