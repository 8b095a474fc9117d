CREATE TABLE `outputs` (
	`id` text PRIMARY KEY NOT NULL,
	`order` text,
	`version` integer NOT NULL,
	`state` text NOT NULL,
	`file_name` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer,
	`reason` text,
	`created_at` integer NOT NULL
);
