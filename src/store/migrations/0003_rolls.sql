CREATE TABLE `rolls` (
	`job_id` int NOT NULL,
	`seq` int NOT NULL,
	`form` int NOT NULL,
	`roll` longtext NOT NULL,
	CONSTRAINT `rolls_job_id` PRIMARY KEY(`job_id`)
);
--> statement-breakpoint
ALTER TABLE `rolls` ADD CONSTRAINT `rolls_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;