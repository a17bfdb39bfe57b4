ALTER TABLE "job" ADD COLUMN "vehicle" jsonb;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "place" text DEFAULT 'bench' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "told" text DEFAULT 'own' NOT NULL;