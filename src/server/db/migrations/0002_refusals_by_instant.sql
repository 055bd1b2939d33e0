CREATE INDEX `refusal_at` ON `refusal` (`at`);--> statement-breakpoint
DELETE FROM `meta` WHERE `key` LIKE 'index:%';
