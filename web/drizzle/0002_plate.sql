ALTER TABLE "job" ADD COLUMN "plate" jsonb DEFAULT '{"direction":"","pulley":"","connector":"","cameWith":""}'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "job_shop_id_customer_index" ON "job" USING btree ("shop_id","customer");--> statement-breakpoint
CREATE INDEX "job_shop_id_model_index" ON "job" USING btree ("shop_id","model");--> statement-breakpoint
CREATE INDEX "job_shop_id_serial_index" ON "job" USING btree ("shop_id","serial");