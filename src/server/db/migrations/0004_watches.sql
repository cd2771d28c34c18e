CREATE TABLE `watch_events` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`design` text NOT NULL,
	`at` integer NOT NULL,
	`event` text NOT NULL,
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `watch_events_by_design` ON `watch_events` (`design`,`id`);--> statement-breakpoint
CREATE TABLE `watch_polls` (
	`design` text NOT NULL,
	`at` integer NOT NULL,
	`whole` integer NOT NULL,
	`data` text NOT NULL,
	PRIMARY KEY(`design`, `at`),
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `watches` (
	`design` text PRIMARY KEY NOT NULL,
	`settings` text NOT NULL,
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
