DROP INDEX `address_path`;--> statement-breakpoint
CREATE INDEX `address_path` ON `address` (`path`,`starts`);