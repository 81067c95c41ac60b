ALTER TABLE `units` ADD `site_switch` varchar(40) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `units` ADD `site_port` varchar(20) DEFAULT '' NOT NULL;