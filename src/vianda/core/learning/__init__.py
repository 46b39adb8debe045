"""What a kitchen learns from its own cooks: effects with priors, data and posteriors, and how good forecasts were."""
