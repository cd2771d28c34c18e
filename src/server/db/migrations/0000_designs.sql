CREATE TABLE `designs` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`revision` integer NOT NULL,
	`switches` integer NOT NULL,
	`links` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
CREATE TABLE `revisions` (
	`design` text NOT NULL,
	`number` integer NOT NULL,
	`command` text NOT NULL,
	`label` text NOT NULL,
	`kind` text NOT NULL,
	`target` integer,
	`patches` text NOT NULL,
	`inverse` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`design`, `number`),
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `snapshots` (
	`design` text NOT NULL,
	`revision` integer NOT NULL,
	`document` text NOT NULL,
	PRIMARY KEY(`design`, `revision`),
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `snapshots_by_design` ON `snapshots` (`design`);