CREATE TABLE `design_edit` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`person` text NOT NULL,
	`made` integer NOT NULL,
	`edit` text NOT NULL,
	`state` text NOT NULL,
	`undone` integer,
	`release` integer
);
--> statement-breakpoint
CREATE INDEX `design_edit_open` ON `design_edit` (`id`) WHERE "design_edit"."state" = 'open';--> statement-breakpoint
CREATE INDEX `design_edit_person` ON `design_edit` (`person`,`state`,`id`);--> statement-breakpoint
CREATE TABLE `person` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `design_version` ADD `edits` text;--> statement-breakpoint
ALTER TABLE `design_version` ADD `published` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `design_version` ADD `undoes` integer;