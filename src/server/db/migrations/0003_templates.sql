CREATE TABLE `templates` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`end` text NOT NULL,
	`text` text NOT NULL,
	`updated_at` integer NOT NULL
);
