CREATE TABLE `brought` (
	`source` text NOT NULL,
	`record` text NOT NULL,
	`entry` text NOT NULL,
	`revision` integer NOT NULL,
	`print` text NOT NULL,
	PRIMARY KEY(`source`, `record`)
);
--> statement-breakpoint
CREATE TABLE `source` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`mapping` text NOT NULL,
	`person` text NOT NULL,
	`at` integer NOT NULL
);
