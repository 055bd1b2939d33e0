DROP INDEX `address_ends`;--> statement-breakpoint
CREATE INDEX `address_ends` ON `address` (`ends`) WHERE "address"."ends" IS NOT NULL;