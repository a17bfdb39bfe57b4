CREATE TABLE "run_step" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"round" integer NOT NULL,
	"step" jsonb NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "run_step" ADD CONSTRAINT "run_step_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_step" ADD CONSTRAINT "run_step_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "run_step_job_id_index" ON "run_step" USING btree ("job_id");