"""What was left in the bowl when a batch was portioned."""

STATEMENTS = ("ALTER TABLE weighing ADD COLUMN IF NOT EXISTS left_g DOUBLE NULL",)
