ALTER TABLE `revisions` ADD `write` text;--> statement-breakpoint
CREATE UNIQUE INDEX `revisions_by_write` ON `revisions` (`design`,`write`);