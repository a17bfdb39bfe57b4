CREATE TABLE "picture" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"caption" text NOT NULL,
	"whole" "bytea" NOT NULL,
	"small" "bytea" NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL,
	"struck_at" timestamp with time zone,
	"struck_by" uuid
);
--> statement-breakpoint
CREATE TABLE "picture_code" (
	"id" text PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"technician_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_struck_by_technician_id_fk" FOREIGN KEY ("struck_by") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_code" ADD CONSTRAINT "picture_code_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_code" ADD CONSTRAINT "picture_code_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_job_id_index" ON "picture" USING btree ("job_id");