CREATE TABLE `bulk_change` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`person` text NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`done` text NOT NULL,
	`undone` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE INDEX `bulk_change_person` ON `bulk_change` (`person`,`id`);--> statement-breakpoint
CREATE TABLE `chosen_columns` (
	`person` text NOT NULL,
	`type` text NOT NULL,
	`columns` text NOT NULL,
	PRIMARY KEY(`person`, `type`)
);
--> statement-breakpoint
CREATE TABLE `saved_filter` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`person` text NOT NULL,
	`shared` integer NOT NULL,
	`filters` text NOT NULL
);
