"""The places of the frame around every page."""

from webkit.extension_points import Place, Question

# beside the name of the application: whom the page is for
SHELF = Place("shelf")
# the search, beside the menu
SEARCH = Place("search")
# over the page: what stands whatever is shown
STANDS = Place("stands")
# beside where a record is put away: what became of it
PUT_AWAY = Place("put-away")
# the panels that open over a page
DIALOGS = Place("dialogs")
# where a number comes from: of what ("bowl-3"), which number; the address that says so
WHERE_FROM: Question[[str, str], str] = Question()
