"""What is built: layers from heel to crown, their height and mass, and rules for their order."""
