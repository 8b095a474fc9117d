CREATE TABLE `assets` (
	`hash` text PRIMARY KEY NOT NULL,
	`bytes` integer NOT NULL,
	`mime` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `revisions` (
	`scene_id` text NOT NULL,
	`number` integer NOT NULL,
	`entry_id` text NOT NULL,
	`kind` text NOT NULL,
	`label` text NOT NULL,
	`patches` text NOT NULL,
	`inverse` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`scene_id`) REFERENCES `scenes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `revisions_number` ON `revisions` (`scene_id`,`number`);--> statement-breakpoint
CREATE UNIQUE INDEX `revisions_entry` ON `revisions` (`scene_id`,`entry_id`);--> statement-breakpoint
CREATE INDEX `revisions_scene` ON `revisions` (`scene_id`);--> statement-breakpoint
CREATE TABLE `scenes` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`plate` text NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`plate`) REFERENCES `assets`(`hash`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `seeds` (
	`scene_id` text PRIMARY KEY NOT NULL
);
