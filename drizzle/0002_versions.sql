CREATE TABLE `offers` (
	`scene_id` text NOT NULL,
	`hash` text NOT NULL,
	`created_at` integer NOT NULL,
	PRIMARY KEY(`scene_id`, `hash`),
	FOREIGN KEY (`scene_id`) REFERENCES `scenes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `revisions` ADD `version` integer DEFAULT 0 NOT NULL;