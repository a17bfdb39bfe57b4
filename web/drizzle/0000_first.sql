CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"tag" integer NOT NULL,
	"customer" text NOT NULL,
	"model" text NOT NULL,
	"serial" text NOT NULL,
	"complaint" text NOT NULL,
	"words" text NOT NULL,
	"due" date,
	"machine" jsonb NOT NULL,
	"assembly" text NOT NULL,
	"meter" text NOT NULL,
	"celsius" real NOT NULL,
	"prices" jsonb NOT NULL,
	"checked_in_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"changed_by" uuid NOT NULL,
	CONSTRAINT "job_shopId_tag_unique" UNIQUE("shop_id","tag")
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "reading_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"check" text NOT NULL,
	"typed" text NOT NULL,
	"outcome" jsonb NOT NULL,
	"meter" text NOT NULL,
	"celsius" real NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "shop" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"heading" text NOT NULL,
	"next_tag" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strike" (
	"reading_id" uuid PRIMARY KEY NOT NULL,
	"struck_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "technician" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "technician_shopId_name_unique" UNIQUE("shop_id","name")
);
--> statement-breakpoint
CREATE TABLE "verdict" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"course" text NOT NULL,
	"reason" text NOT NULL,
	"job_file" jsonb NOT NULL,
	"assessment" jsonb NOT NULL,
	"decided_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_changed_by_technician_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike" ADD CONSTRAINT "strike_reading_id_reading_id_fk" FOREIGN KEY ("reading_id") REFERENCES "public"."reading"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike" ADD CONSTRAINT "strike_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "technician" ADD CONSTRAINT "technician_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict" ADD CONSTRAINT "verdict_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict" ADD CONSTRAINT "verdict_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "reading_job_id_index" ON "reading" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "verdict_job_id_index" ON "verdict" USING btree ("job_id");