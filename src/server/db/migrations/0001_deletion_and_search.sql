ALTER TABLE `entry` ADD `deleted` integer;--> statement-breakpoint
ALTER TABLE `refusal` ADD `base` text;--> statement-breakpoint
ALTER TABLE `refusal` ADD `by_hand` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `revision` ADD `search` text DEFAULT '' NOT NULL;