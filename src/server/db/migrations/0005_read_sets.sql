CREATE TABLE `public_change` (
	`generation` integer NOT NULL,
	`key` text NOT NULL,
	PRIMARY KEY(`generation`, `key`)
);
--> statement-breakpoint
CREATE INDEX `address_base` ON `address` (`base`,`starts`);--> statement-breakpoint
CREATE INDEX `refusal_base` ON `refusal` (`base`);