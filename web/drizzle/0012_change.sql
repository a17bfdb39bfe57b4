CREATE TABLE "change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"asked" jsonb NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "change" ADD CONSTRAINT "change_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "change" ADD CONSTRAINT "change_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "change_job_id_index" ON "change" USING btree ("job_id");