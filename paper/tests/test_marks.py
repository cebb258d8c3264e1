"""The practice's mark: what can be one, how it is kept, that it stands on paper."""

import base64
import io

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from PIL import Image

from paper.marks import NoMark, in_gray, mark_of, read_mark
from practice.models import Mark
from practice.testing import PracticeCase


def picture(size=(1200, 600), kind="PNG") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "#1e3a7b").save(out, kind)
    return out.getvalue()


class Marks(PracticeCase):
    def upload(self, content, name="mark.png"):
        return self.client.post(
            reverse("paper:mark"), {"file": SimpleUploadedFile(name, content, "image/png")}
        )

    def test_it_is_kept_small_and_shown(self):
        self.assertRedirects(self.upload(picture()), reverse("paper:mark"))
        kept = mark_of(self.practice)
        packed = base64.b64decode(kept.removeprefix("data:image/png;base64,"))
        self.assertEqual(Image.open(io.BytesIO(packed)).size, (600, 300))
        self.assertContains(self.client.get(reverse("paper:mark")), kept)

    def test_in_black_and_white_it_has_no_color(self):
        self.upload(picture())
        gray = in_gray(mark_of(self.practice))
        packed = base64.b64decode(gray.removeprefix("data:image/png;base64,"))
        colors = Image.open(io.BytesIO(packed)).convert("RGB").getcolors()
        self.assertEqual([len(set(color)) for _count, color in colors], [1])
        self.assertEqual(in_gray(""), "")

    def test_what_is_no_picture_is_refused_and_says_so(self):
        for content, words in (
            (b"<svg onload='x'/>", "Choose a picture"),
            (b"GIF89a broken", "Choose a picture"),
            (b"\0" * 2_000_001, "at most 2 MB"),
        ):
            with self.subTest(words=words):
                answer = self.upload(content)
                self.assertEqual(answer.status_code, 400)
                self.assertContains(answer, words, status_code=400)
        self.assertFalse(Mark.objects.exists())

    def test_too_many_pixels(self):
        small = picture((5000, 4000))
        self.assertTrue(read_mark(io.BytesIO(small), len(small)))
        large = picture((5000, 4001))
        with self.assertRaisesMessage(NoMark, "too many pixels"):
            read_mark(io.BytesIO(large), len(large))

    def test_it_is_taken_away_and_no_other_practice_has_it(self):
        self.upload(picture())
        self.assertEqual(mark_of(self.other_practice), "")
        self.client.post(reverse("paper:mark"), {"remove": "1"})
        self.assertEqual(mark_of(self.practice), "")
