ALTER TABLE `refusal` ADD `base` text;--> statement-breakpoint
ALTER TABLE `refusal` ADD `by_hand` integer DEFAULT false NOT NULL;