"""What is offered on a page, for the tests of all that can be changed."""

import html
import re


def offers(page):
    """Words and tokens of all the swaps on a page that can be taken."""
    swap = r'<li class="swap">.*?<p class="font-semibold">(.*?)</p>.*?name="change" value="(.*?)"'
    return [
        (html.unescape(words), token)
        for words, token in re.findall(swap, page.content.decode(), re.S)
    ]
