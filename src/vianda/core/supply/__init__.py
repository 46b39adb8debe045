"""Supply: what dishes take, what has to be bought for them, what is made ahead, and what is taken in."""
