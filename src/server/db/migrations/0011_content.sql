CREATE TABLE `newest` (
	`id` integer PRIMARY KEY NOT NULL,
	`entry` text NOT NULL,
	`type` text NOT NULL,
	`name` text NOT NULL,
	`texts` blob NOT NULL,
	`words` text NOT NULL,
	FOREIGN KEY (`entry`) REFERENCES `entry`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `newest_entry_unique` ON `newest` (`entry`);--> statement-breakpoint
CREATE TABLE `newest_cell` (
	`field` text NOT NULL,
	`value` blob NOT NULL,
	`id` integer NOT NULL,
	PRIMARY KEY(`field`, `value`, `id`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE INDEX `newest_cell_id` ON `newest_cell` (`id`);--> statement-breakpoint
CREATE TABLE `state_stretch` (
	`id` integer NOT NULL,
	`state` text NOT NULL,
	`starts` integer NOT NULL,
	`ends` integer NOT NULL,
	PRIMARY KEY(`state`, `ends`, `starts`, `id`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE INDEX `state_stretch_id` ON `state_stretch` (`id`);--> statement-breakpoint
CREATE VIRTUAL TABLE newest_words USING fts5(
	name, words, content='newest', content_rowid='id',
	tokenize="unicode61 remove_diacritics 2", prefix='2 3'
);
--> statement-breakpoint
CREATE TRIGGER newest_comes AFTER INSERT ON newest BEGIN
	INSERT INTO newest_words (rowid, name, words) VALUES (new.id, new.name, new.words);
END;
--> statement-breakpoint
CREATE TRIGGER newest_goes AFTER DELETE ON newest BEGIN
	INSERT INTO newest_words (newest_words, rowid, name, words)
		VALUES ('delete', old.id, old.name, old.words);
END;
--> statement-breakpoint
CREATE TRIGGER newest_changes AFTER UPDATE OF name, words ON newest BEGIN
	INSERT INTO newest_words (newest_words, rowid, name, words)
		VALUES ('delete', old.id, old.name, old.words);
	INSERT INTO newest_words (rowid, name, words) VALUES (new.id, new.name, new.words);
END;
