CREATE TABLE `bench` (
	`job_id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `blobs` (
	`sha256` text PRIMARY KEY NOT NULL,
	`size` integer NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `edits` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`revision` integer NOT NULL,
	`at` text NOT NULL,
	`tab` text NOT NULL,
	`kind` text NOT NULL,
	`words` text NOT NULL,
	`changes` text NOT NULL,
	`role` text NOT NULL,
	`about` text,
	`standing` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `edits_job_revision` ON `edits` (`job_id`,`revision`);--> statement-breakpoint
CREATE TABLE `history` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`kind` text NOT NULL,
	`at` text NOT NULL,
	`document` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `history_job` ON `history` (`job_id`,`at`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`number` integer NOT NULL,
	`title` text NOT NULL,
	`object` text NOT NULL,
	`revision` integer NOT NULL,
	`schema_version` integer NOT NULL,
	`document` text NOT NULL,
	`created_at` text NOT NULL,
	`updated_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number` ON `jobs` (`number`);--> statement-breakpoint
CREATE INDEX `jobs_updated` ON `jobs` (`updated_at`);--> statement-breakpoint
CREATE TABLE `workshop` (
	`id` integer PRIMARY KEY NOT NULL,
	`revision` integer NOT NULL,
	`document` text NOT NULL
);
