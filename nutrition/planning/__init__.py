"""The week: what stands in each slot of a client's skeleton, in which portion, and what is cooked
when.

`week` is the problem in words, `cooking` the batches that eaten portions need, `score` what counts
and in which order, `enumeration` every week tried, `model` the same for CP-SAT, `search` the best
week within some work, `proposals` up to three of them, `obstacles` what stands in the way and what
would help; `skeleton` what a client's week is made of.
"""
