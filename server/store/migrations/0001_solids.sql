CREATE TABLE `solids` (
	`key` text PRIMARY KEY NOT NULL,
	`record` text NOT NULL,
	`mesh` text NOT NULL,
	`step` text,
	`step_problem` text,
	`at` text NOT NULL
);
