CREATE TABLE `starter` (
	`id` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`name` text NOT NULL,
	`filled` text NOT NULL,
	`author` text NOT NULL,
	`saved` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `starter_type` ON `starter` (`type`,`name`);--> statement-breakpoint
ALTER TABLE `entry` ADD `purged` integer;