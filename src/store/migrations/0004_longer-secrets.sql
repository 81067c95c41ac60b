ALTER TABLE `former_passwords` MODIFY COLUMN `sealed` blob NOT NULL;--> statement-breakpoint
ALTER TABLE `secrets` MODIFY COLUMN `sealed` blob NOT NULL;