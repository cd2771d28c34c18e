CREATE TABLE `baselines` (
	`design` text NOT NULL,
	`revision` integer NOT NULL,
	`name` text NOT NULL,
	PRIMARY KEY(`design`, `revision`),
	FOREIGN KEY (`design`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE cascade
);
