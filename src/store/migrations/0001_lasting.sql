CREATE TABLE `file_parts` (
	`file` varchar(64) NOT NULL,
	`part` int NOT NULL,
	`bytes` longblob NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `file_parts_file_part_pk` PRIMARY KEY(`file`,`part`)
);
--> statement-breakpoint
CREATE TABLE `files` (
	`hash` varchar(64) NOT NULL,
	`size` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `files_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
ALTER TABLE `orders` MODIFY COLUMN `status` enum('open','claimed','pausing','paused','done','failed') NOT NULL DEFAULT 'open';--> statement-breakpoint
INSERT IGNORE INTO `files` (`hash`, `size`, `at`) SELECT sha2(`bytes`, 256), length(`bytes`), `at` FROM `floor_drawings`;--> statement-breakpoint
INSERT IGNORE INTO `file_parts` (`file`, `part`, `bytes`, `at`) SELECT sha2(`bytes`, 256), 0, `bytes`, `at` FROM `floor_drawings`;--> statement-breakpoint
ALTER TABLE `floor_drawings` ADD `file` varchar(64);--> statement-breakpoint
UPDATE `floor_drawings` SET `file` = sha2(`bytes`, 256);--> statement-breakpoint
ALTER TABLE `floor_drawings` MODIFY COLUMN `file` varchar(64) NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `revision` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `deleted_at` datetime(3);--> statement-breakpoint
ALTER TABLE `orders` ADD `attempts` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `orders` ADD `not_before` datetime(3);--> statement-breakpoint
ALTER TABLE `orders` ADD `ended_at` datetime(3);--> statement-breakpoint
ALTER TABLE `orders` ADD `reason` varchar(500);--> statement-breakpoint
UPDATE `orders` SET `status` = 'done' WHERE `kind` = 'muster' AND `status` IN ('open', 'claimed', 'pausing') AND `id` NOT IN (SELECT * FROM (SELECT max(`id`) FROM `orders` WHERE `kind` = 'muster' AND `status` IN ('open', 'claimed', 'pausing') GROUP BY `job_id`) AS `newest`);--> statement-breakpoint
UPDATE `orders` SET `units` = if(`units` = '[]', '{"kind":"all"}', concat('{"kind":"these","units":', `units`, '}'));--> statement-breakpoint
ALTER TABLE `orders` ADD `open_muster` int GENERATED ALWAYS AS ((if(kind = 'muster' and status in ('open', 'claimed', 'pausing'), 1, null))) STORED;--> statement-breakpoint
ALTER TABLE `plannings` ADD `revision` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `runners` ADD `wire` enum('works','away') DEFAULT 'works' NOT NULL;--> statement-breakpoint
ALTER TABLE `orders` ADD CONSTRAINT `one_open_muster_per_job` UNIQUE(`job_id`,`open_muster`);--> statement-breakpoint
ALTER TABLE `floor_drawings` ADD CONSTRAINT `floor_drawings_file_files_hash_fk` FOREIGN KEY (`file`) REFERENCES `files`(`hash`) ON DELETE no action ON UPDATE no action;