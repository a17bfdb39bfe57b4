CREATE TABLE "bench_screen" (
	"id" text PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"technician_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"technician_id" uuid NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"address" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "wrong_try" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "wrong_try_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"technician_id" uuid,
	"secret" text NOT NULL,
	"address" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "technician" ADD COLUMN "role" text DEFAULT 'technician' NOT NULL;--> statement-breakpoint
ALTER TABLE "technician" ADD COLUMN "pin_hash" text;--> statement-breakpoint
ALTER TABLE "technician" ADD COLUMN "password_hash" text;--> statement-breakpoint
ALTER TABLE "technician" ADD COLUMN "left" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "bench_screen" ADD CONSTRAINT "bench_screen_shop_id_shop_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shop"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bench_screen" ADD CONSTRAINT "bench_screen_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wrong_try" ADD CONSTRAINT "wrong_try_technician_id_technician_id_fk" FOREIGN KEY ("technician_id") REFERENCES "public"."technician"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_technician_id_index" ON "session" USING btree ("technician_id");--> statement-breakpoint
CREATE INDEX "wrong_try_technician_id_at_index" ON "wrong_try" USING btree ("technician_id","at");--> statement-breakpoint
CREATE INDEX "wrong_try_address_at_index" ON "wrong_try" USING btree ("address","at");