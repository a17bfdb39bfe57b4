CREATE TABLE "instrument" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"host" text NOT NULL,
	"port" integer NOT NULL,
	"meter" text,
	"changed_at" timestamp with time zone NOT NULL,
	"changed_by" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_changed_by_technician_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;