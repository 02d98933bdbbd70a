"""The calculators as a bench uses them: what they ask, what they answer in words and numbers, and which question of the drive they speak to."""
