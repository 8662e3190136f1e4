CREATE TABLE `tags` (
	`job_id` text PRIMARY KEY NOT NULL,
	`stamp` text NOT NULL,
	`workshop` text NOT NULL,
	`document` text NOT NULL
);
