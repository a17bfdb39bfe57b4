CREATE TABLE "move" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"from" text NOT NULL,
	"to" text NOT NULL,
	"note" text NOT NULL,
	"moved_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "stand" text DEFAULT 'in' NOT NULL;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "move_job_id_index" ON "move" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "job_shop_id_stand_changed_at_index" ON "job" USING btree ("shop_id","stand","changed_at");