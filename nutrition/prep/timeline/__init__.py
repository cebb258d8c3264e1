"""When each step is done, so that all is ready at the wanted time with the hands, burners, shelves
and blenders that there are."""
