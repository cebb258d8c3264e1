"""Files that somebody's first visit was begun from, until what is in them is taken over."""

from django.db import models
from django_scopes import ScopedManager

from clients.models import Intake


class Begun(models.Model):
    """The file of a first visit: its weights and values wait until the client is there."""

    intake = models.OneToOneField(Intake, on_delete=models.CASCADE, related_name="begun_from")
    text = models.TextField()
    made = models.DateTimeField(auto_now_add=True)

    objects = ScopedManager(practice="intake__practice")
