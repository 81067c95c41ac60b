CREATE TABLE `row_upgrades` (
	`name` varchar(60) NOT NULL,
	`job_id` int NOT NULL DEFAULT 0,
	`seq` int NOT NULL DEFAULT 0,
	`state` enum('under-way','done') NOT NULL DEFAULT 'under-way',
	CONSTRAINT `row_upgrades_name` PRIMARY KEY(`name`)
);
