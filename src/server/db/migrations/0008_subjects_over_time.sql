CREATE TABLE `__new_subject` (
	`set` text NOT NULL,
	`key` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`name` text NOT NULL,
	`slug` text NOT NULL,
	`description` text NOT NULL,
	`picture` text,
	`parent` text,
	`merged` text,
	`position` real NOT NULL,
	`author` text,
	PRIMARY KEY(`set`, `key`, `starts`)
);
--> statement-breakpoint
INSERT INTO `__new_subject`("set", "key", "starts", "name", "slug", "description", "parent", "position") SELECT "set", "key", -8640000000000000, "name", "slug", "description", "parent", "position" FROM `subject`;--> statement-breakpoint
DROP TABLE `subject`;--> statement-breakpoint
ALTER TABLE `__new_subject` RENAME TO `subject`;--> statement-breakpoint
CREATE INDEX `subject_starts` ON `subject` (`set`,`starts`);--> statement-breakpoint
CREATE INDEX `subject_ends` ON `subject` (`set`,`ends`);--> statement-breakpoint
CREATE INDEX `subject_name` ON `subject` (`set`,`name` COLLATE NOCASE);--> statement-breakpoint
CREATE INDEX `subject_slug` ON `subject` (`set`,`slug`);