CREATE TABLE "meter" (
	"shop_id" uuid NOT NULL,
	"id" text NOT NULL,
	"known" jsonb NOT NULL,
	"calibrated_on" date,
	"every_months" integer,
	"retired" boolean DEFAULT false NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "meter_shop_id_id_pk" PRIMARY KEY("shop_id","id")
);
--> statement-breakpoint
CREATE TABLE "work" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "work_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"fitted" jsonb NOT NULL,
	"mended" jsonb NOT NULL,
	"note" text NOT NULL,
	"done_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "variants" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "known_good" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "round" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "reading" ADD COLUMN "detail" jsonb;--> statement-breakpoint
ALTER TABLE "shop" ADD COLUMN "rules" jsonb DEFAULT '{"limits":["published","siblings","own"]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "meter" ADD CONSTRAINT "meter_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work" ADD CONSTRAINT "work_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work" ADD CONSTRAINT "work_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "work_job_id_index" ON "work" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "reading_check_taken_at_index" ON "reading" USING btree ("check","taken_at");