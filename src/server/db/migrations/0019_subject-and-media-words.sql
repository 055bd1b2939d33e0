ALTER TABLE `media` ADD `languages` text;--> statement-breakpoint
ALTER TABLE `subject` ADD `languages` text;