CREATE TABLE `backups` (
	`job_id` int NOT NULL,
	`mac` varchar(17) NOT NULL,
	`copy` enum('as-found','as-left') NOT NULL,
	`sealed` longblob NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `backups_job_id_mac_copy_pk` PRIMARY KEY(`job_id`,`mac`,`copy`)
);
--> statement-breakpoint
CREATE TABLE `events` (
	`job_id` int NOT NULL,
	`seq` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`event` longtext NOT NULL,
	CONSTRAINT `events_job_id_seq_pk` PRIMARY KEY(`job_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `floor_drawings` (
	`job_id` int NOT NULL,
	`floor_id` varchar(40) NOT NULL,
	`type` varchar(20) NOT NULL,
	`bytes` longblob NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `floor_drawings_job_id_floor_id_pk` PRIMARY KEY(`job_id`,`floor_id`)
);
--> statement-breakpoint
CREATE TABLE `former_passwords` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`job_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	`sealed` varbinary(1024) NOT NULL,
	CONSTRAINT `former_passwords_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `installation_files` (
	`name` varchar(40) NOT NULL,
	`label` varchar(120) NOT NULL,
	`bytes` longblob NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `installation_files_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` int AUTO_INCREMENT NOT NULL,
	`slug` varchar(60) NOT NULL,
	`name` varchar(120) NOT NULL,
	`brief` longtext NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`last_seq` int NOT NULL DEFAULT 0,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `jobs_id` PRIMARY KEY(`id`),
	CONSTRAINT `jobs_slug_unique` UNIQUE(`slug`)
);
--> statement-breakpoint
CREATE TABLE `kit_cards` (
	`model` varchar(80) NOT NULL,
	`yaml` longtext NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `kit_cards_model` PRIMARY KEY(`model`)
);
--> statement-breakpoint
CREATE TABLE `orders` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`job_id` int NOT NULL,
	`kind` enum('sweep','muster','restore-laptop') NOT NULL,
	`units` longtext NOT NULL,
	`status` enum('open','claimed','pausing','paused','done') NOT NULL DEFAULT 'open',
	`lease_owner` varchar(60),
	`lease_until` datetime(3),
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `orders_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `pins` (
	`job_id` int NOT NULL,
	`mac` varchar(17) NOT NULL,
	`fingerprint` varchar(95) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `pins_job_id_mac_pk` PRIMARY KEY(`job_id`,`mac`)
);
--> statement-breakpoint
CREATE TABLE `plannings` (
	`job_id` int NOT NULL,
	`faults` longtext NOT NULL,
	`cost` double NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `plannings_job_id` PRIMARY KEY(`job_id`)
);
--> statement-breakpoint
CREATE TABLE `runners` (
	`id` varchar(60) NOT NULL,
	`host` varchar(40) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`swept_at` datetime(3),
	CONSTRAINT `runners_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `secrets` (
	`job_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`sealed` varbinary(1024) NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	`weakness` longtext,
	CONSTRAINT `secrets_job_id_name_pk` PRIMARY KEY(`job_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `sites` (
	`job_id` int NOT NULL,
	`site` longtext NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `sites_job_id` PRIMARY KEY(`job_id`)
);
--> statement-breakpoint
CREATE TABLE `unit_locks` (
	`job_id` int NOT NULL,
	`unit_id` varchar(40) NOT NULL,
	`channels` longtext NOT NULL,
	`address` varchar(15),
	CONSTRAINT `unit_locks_job_id_unit_id_pk` PRIMARY KEY(`job_id`,`unit_id`)
);
--> statement-breakpoint
CREATE TABLE `unit_plans` (
	`job_id` int NOT NULL,
	`unit_id` varchar(40) NOT NULL,
	`address` varchar(15) NOT NULL,
	`radios` longtext NOT NULL,
	CONSTRAINT `unit_plans_job_id_unit_id_pk` PRIMARY KEY(`job_id`,`unit_id`),
	CONSTRAINT `one_address_per_job` UNIQUE(`job_id`,`address`)
);
--> statement-breakpoint
CREATE TABLE `units` (
	`job_id` int NOT NULL,
	`id` varchar(40) NOT NULL,
	`position` int NOT NULL,
	`name` varchar(63) NOT NULL,
	`place` varchar(80) NOT NULL,
	`model` varchar(80) NOT NULL,
	`mac` varchar(17) NOT NULL,
	`serial` varchar(40) NOT NULL,
	`port` int,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `units_job_id_id_pk` PRIMARY KEY(`job_id`,`id`),
	CONSTRAINT `one_mac_per_job` UNIQUE(`job_id`,`mac`),
	CONSTRAINT `one_name_per_job` UNIQUE(`job_id`,`name`)
);
--> statement-breakpoint
ALTER TABLE `backups` ADD CONSTRAINT `backups_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `events` ADD CONSTRAINT `events_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `floor_drawings` ADD CONSTRAINT `floor_drawings_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `former_passwords` ADD CONSTRAINT `former_passwords_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `orders` ADD CONSTRAINT `orders_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pins` ADD CONSTRAINT `pins_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `plannings` ADD CONSTRAINT `plannings_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `secrets` ADD CONSTRAINT `secrets_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sites` ADD CONSTRAINT `sites_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `unit_locks` ADD CONSTRAINT `unit_locks_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `unit_locks` ADD CONSTRAINT `lock_of_unit` FOREIGN KEY (`job_id`,`unit_id`) REFERENCES `units`(`job_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `unit_plans` ADD CONSTRAINT `unit_plans_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `unit_plans` ADD CONSTRAINT `plan_of_unit` FOREIGN KEY (`job_id`,`unit_id`) REFERENCES `units`(`job_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `units` ADD CONSTRAINT `units_job_id_jobs_id_fk` FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON DELETE cascade ON UPDATE no action;