CREATE TABLE `pick` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`picks` text NOT NULL,
	`entry` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer,
	`position` real NOT NULL,
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pick_position` ON `pick` (`picks`,`position`,`id`);--> statement-breakpoint
CREATE INDEX `pick_entry` ON `pick` (`entry`,`picks`);--> statement-breakpoint
CREATE INDEX `pick_starts` ON `pick` (`picks`,`starts`);--> statement-breakpoint
CREATE INDEX `pick_ends` ON `pick` (`picks`,`ends`);--> statement-breakpoint
CREATE INDEX `pick_any_starts` ON `pick` (`starts`);--> statement-breakpoint
CREATE INDEX `pick_any_ends` ON `pick` (`ends`);