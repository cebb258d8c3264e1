"""Cooking ahead: how long a dish keeps, a batch in containers with labels, the hot pot that must
cool, what is bought for all of it and what remains.

`keeping` how long, `cooling` the pot, `batches` a cooking in containers, `buying` from as eaten to
as bought, `shopping` the list.
"""
