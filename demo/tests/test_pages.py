"""Every kind of page of the demo, as it is drawn."""

import re
from collections import Counter

from django.conf import settings
from django.test import TestCase

from demo.load import NAME
from demo.tests.demo_rows import fill
from practice.models import User

LINK = re.compile(r'(?:href|hx-get)="(/[^"#]*)')
ID = re.compile(r'\sid="([^"]*)"')
# Pages of one shape are looked at so often, and so many shapes there are at the least.
OF_A_SHAPE, KINDS = 1, 80


def shape_of(address):
    """What tells one kind of page from another: its address without what it is of."""
    path, _mark, query = address.partition("?")
    path = re.sub(r"/pantry/[^/]+/", "/pantry/X/", re.sub(r"^/for/\d+", "", path))
    return re.sub(r"[\d-]+", "N", path) + "?" + re.sub(r"=[^&]*", "", query)


class Pages(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()

    def test_each_name_on_a_page_is_of_one_place(self):
        user = User.objects.get(username=NAME)
        self.client.force_login(user, settings.AUTHENTICATION_BACKENDS[-1])
        waiting, seen, twice, wrong = ["/clients/"], Counter(), {}, {}
        while waiting:
            address = waiting.pop()
            page = self.client.get(address)
            if page.status_code == 302:
                page = self.client.get(page["Location"])
            if page.status_code >= 400:
                wrong[address] = page.status_code
            if page.streaming or "html" not in page.get("Content-Type", ""):
                continue
            text = page.content.decode()
            counted = Counter(ID.findall(text))
            if several := [name for name, count in counted.items() if count > 1]:
                twice[shape_of(address)] = several
            for found in LINK.findall(text):
                link = found.replace("&amp;", "&")
                shape = shape_of(link)
                if "sign-" in link or link.startswith("/static") or seen[shape] >= OF_A_SHAPE:
                    continue
                seen[shape] += 1
                waiting.append(link)
        self.assertGreater(len(seen), KINDS)
        self.assertEqual((twice, wrong), ({}, {}))
