CREATE TABLE `address` (
	`path` text NOT NULL,
	`language` text NOT NULL,
	`entry` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`role` text NOT NULL,
	`base` text NOT NULL,
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `address_path` ON `address` (`path`,`starts`,`entry`,`role`,`ends`,`language`);--> statement-breakpoint
CREATE INDEX `address_entry` ON `address` (`entry`,`starts`);--> statement-breakpoint
CREATE INDEX `address_starts` ON `address` (`starts`);--> statement-breakpoint
CREATE INDEX `address_ends` ON `address` (`ends`);--> statement-breakpoint
CREATE TABLE `by_hand` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`entry` text NOT NULL,
	`path` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `by_hand_entry` ON `by_hand` (`entry`);--> statement-breakpoint
CREATE TABLE `design_version` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`spec` text NOT NULL,
	`author` text NOT NULL,
	`saved` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `design_version_starts` ON `design_version` (`starts`);--> statement-breakpoint
CREATE TABLE `entry` (
	`id` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`created` integer NOT NULL,
	`author` text NOT NULL,
	`published` integer,
	`newest` integer DEFAULT 0 NOT NULL,
	`unpublished` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE INDEX `entry_type` ON `entry` (`type`,`created`,`id`);--> statement-breakpoint
CREATE INDEX `entry_published` ON `entry` (`published`);--> statement-breakpoint
CREATE INDEX `entry_unpublished` ON `entry` (`id`) WHERE "entry"."unpublished" = 1;--> statement-breakpoint
CREATE TABLE `live_interval` (
	`entry` text NOT NULL,
	`language` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`revision` integer NOT NULL,
	`shared_revision` integer NOT NULL,
	PRIMARY KEY(`entry`, `language`, `starts`),
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `live_interval_starts` ON `live_interval` (`starts`);--> statement-breakpoint
CREATE INDEX `live_interval_ends` ON `live_interval` (`ends`);--> statement-breakpoint
CREATE TABLE `media` (
	`id` text PRIMARY KEY NOT NULL,
	`hash` text NOT NULL,
	`alt` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `meta` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `planned_change` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`entry` text NOT NULL,
	`language` text NOT NULL,
	`at` integer NOT NULL,
	`sequence` integer NOT NULL,
	`action` text NOT NULL,
	`revision` integer,
	`local` text,
	`zone` text,
	`person` text NOT NULL,
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `planned_change_at` ON `planned_change` (`at`);--> statement-breakpoint
CREATE INDEX `planned_change_entry` ON `planned_change` (`entry`,`at`,`sequence`);--> statement-breakpoint
CREATE TABLE `reference_edge` (
	`target` text NOT NULL,
	`field` text NOT NULL,
	`entry` text NOT NULL,
	`revision` integer NOT NULL,
	PRIMARY KEY(`target`, `field`, `entry`, `revision`)
);
--> statement-breakpoint
CREATE INDEX `reference_edge_entry` ON `reference_edge` (`entry`);--> statement-breakpoint
CREATE TABLE `refusal` (
	`entry` text NOT NULL,
	`at` integer NOT NULL,
	`code` text NOT NULL,
	`message` text NOT NULL,
	`fix` text NOT NULL,
	`cancelled` integer NOT NULL,
	PRIMARY KEY(`entry`, `at`)
);
--> statement-breakpoint
CREATE TABLE `revision` (
	`entry` text NOT NULL,
	`number` integer NOT NULL,
	`saved` integer NOT NULL,
	`author` text NOT NULL,
	`values` text NOT NULL,
	`name` text NOT NULL,
	PRIMARY KEY(`entry`, `number`),
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `revision_saved` ON `revision` ("saved" DESC,`entry`);--> statement-breakpoint
CREATE TABLE `site_change` (
	`scope` text PRIMARY KEY NOT NULL,
	`generation` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `subject` (
	`set` text NOT NULL,
	`key` text NOT NULL,
	`name` text NOT NULL,
	`slug` text NOT NULL,
	`description` text NOT NULL,
	`parent` text,
	`position` integer NOT NULL,
	PRIMARY KEY(`set`, `key`)
);
